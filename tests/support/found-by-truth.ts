/** What an analysis would find in a made clip if it made no mistake: for tests of what is done with it. */
import { writeFileSync } from "node:fs";
import type { AnalysisReport } from "~/core/formats/report";
import { readTruth } from "../../demo/truth";

/** A report of one of the films in demo/clips. */
export function foundByTruth(clip: string): AnalysisReport {
  const { width, height, rate, frames, shots, tracks } = readTruth(`demo/clips/${clip}.truth.json`);
  const bodies = tracks.map(({ id, kind, shot, start, boxes }) => ({ id, kind, shot, start, boxes, confidence: 1 }));
  const faces = tracks.flatMap(({ id, shot, start, face }) =>
    face
      ? [{ id: `${id}-face`, kind: "face" as const, shot, start, boxes: face, confidence: 1, who: id, person: id }]
      : [],
  );
  return {
    format: "glad-pan/analysis",
    version: 2,
    source: { file: `${clip}.mp4`, width, height, rate: [rate[0], rate[1]], frames },
    shots: shots.map(({ start, end }) => ({
      start,
      end,
      transition: "cut",
      subject: null,
      reason: "as it was made",
      certainty: 1,
    })),
    tracks: [...bodies, ...faces],
  };
}

/** Writes it to a file, for commands that read one. */
export const writeFound = (clip: string, file: string): void => writeFileSync(file, JSON.stringify(foundByTruth(clip)));
