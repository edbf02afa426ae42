import { packFeatures, unpackFeatures } from "~/core/shots/feature-codec";
import {
  analysedTo,
  dropChunks,
  dropFeatures,
  findTransitions,
  insertChunk,
  listChunks,
  saveTracks,
  saveTransitions,
  saveUndecoded,
} from "~/db/analysis.server";
import { saveActivity } from "~/db/activity.server";
import { type Db, inTransaction } from "~/db/database.server";
import { raiseFindings } from "~/db/films.server";
import { listPeople, savePeople } from "~/db/people.server";
import { takeFoundShots } from "~/db/found-shots.server";
import type { AnalysisStore } from "~/pipelines/analyse-film.server";

/** Keeps the steps of an analysis in the database, so that it goes on after an interruption and can be worked with. */
export const databaseStore = (db: Db, filmId: string): AnalysisStore => ({
  load: () => {
    const people = listPeople(db, filmId);
    const found = findTransitions(db, filmId);
    if (!found && people.length === 0) return null;
    // Of a film whose file was replaced, it is known who is in it.
    const transitions = found ?? { candidates: [], settled: 0 };
    const chunks = listChunks(db, filmId).map((chunk) => ({
      ...chunk,
      features: unpackFeatures(chunk.features),
      // They are kept by themselves.
      undecoded: [],
    }));
    return { transitions, people, finishedTo: analysedTo(db, filmId), chunks };
  },
  saveChunk: (chunk, transitions, featuresFrom) =>
    inTransaction(db, () => {
      insertChunk(db, filmId, { ...chunk, features: packFeatures(chunk.features) });
      if (chunk.undecoded.length > 0) {
        saveUndecoded(db, filmId, chunk.undecoded);
        raiseFindings(db, filmId);
      }
      saveTransitions(db, filmId, transitions);
      dropFeatures(db, filmId, featuresFrom);
    }),
  saveActivity: (range, activity) => saveActivity(db, filmId, range, activity),
  saveTransitions: (transitions) => saveTransitions(db, filmId, transitions),
  saveShots: (shots, people, neededFrom) =>
    inTransaction(db, () => {
      for (const { range, tracks } of shots) saveTracks(db, filmId, range, tracks);
      takeFoundShots(db, filmId, shots);
      savePeople(db, filmId, people);
      dropChunks(db, filmId, neededFrom);
      raiseFindings(db, filmId);
    }),
});
