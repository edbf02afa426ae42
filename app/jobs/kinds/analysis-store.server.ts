import { packFeatures, unpackFeatures } from "~/core/shots/feature-codec";
import {
  beginPass,
  dropChunks,
  dropFeatures,
  findPass,
  findTransitions,
  insertChunk,
  listAnalysed,
  listChunks,
  saveTracks,
  saveTransitions,
  saveUndecoded,
} from "~/db/analysis.server";
import { saveActivity } from "~/db/activity.server";
import { type Db, inTransaction } from "~/db/database.server";
import { findWanted, raiseFindings } from "~/db/films.server";
import { listPeople, savePeople } from "~/db/people.server";
import { takeFoundShots } from "~/db/found-shots.server";
import type { PassStore } from "~/pipelines/analyse-in-passes.server";

/** Stores the steps of an analysis in the database, so that it continues after an interruption and can be worked with. */
export const databaseStore = (db: Db, filmId: string): PassStore => ({
  analysed: () => listAnalysed(db, filmId),
  wanted: () => findWanted(db, filmId),
  pass: () => findPass(db, filmId),
  beginPass: (pass, begins) => inTransaction(db, () => beginPass(db, filmId, pass, begins)),
  load: ({ start, end }) => {
    const people = listPeople(db, filmId);
    const transitions = findTransitions(db, filmId) ?? { candidates: [], settled: start };
    const done = listAnalysed(db, filmId).filter((range) => range.start >= start && range.end <= end);
    const finishedTo = Math.max(start, ...done.map((range) => range.end));
    const chunks = listChunks(db, filmId).map((chunk) => ({
      ...chunk,
      features: unpackFeatures(chunk.features),
      // They are stored separately.
      undecoded: [],
    }));
    return { transitions, people, finishedTo, chunks };
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
