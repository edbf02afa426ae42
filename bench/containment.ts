/**
 * Holds a conversion's report against the ground truth of the demo film: cuts to the frame, and for every shot
 * the share of frames in which the followed person's face is wholly inside the window.
 *
 *   node --import tsx bench/containment.ts REPORT.json [TRUTH.json] [--json OUT.json]
 */
import { readFileSync, writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { Report } from "~/core/formats/report";
import { compareWithTruth, readTruth } from "../demo/truth";

const { values, positionals } = parseArgs({ allowPositionals: true, options: { json: { type: "string" } } });
const [reportFile, truthFile = "demo/ferrow-kite-day.truth.json"] = positionals;
if (!reportFile) {
  console.error("usage: containment.ts REPORT.json [TRUTH.json] [--json OUT.json]");
  process.exit(2);
}
const report = Report.parse(JSON.parse(readFileSync(reportFile, "utf8")));
const result = compareWithTruth(report, readTruth(truthFile));

console.table(
  result.shots.map((shot) => ({
    shot: shot.name,
    start: shot.start,
    found: shot.found,
    subject: shot.subject,
    "face inside %": shot.faceInside === null ? "" : (100 * shot.faceInside).toFixed(1),
    "body or thing inside %": shot.bodyInside === null ? "" : (100 * shot.bodyInside).toFixed(1),
    keys: shot.keys,
  })),
);
console.log(
  `hard cuts found to the frame: ${result.cutsFound} of ${result.cuts}; shots not in the truth: ${result.falseCuts}`,
);
console.log(`keys a shot: ${result.keysPerShot.toFixed(2)}`);
if (values.json) writeFileSync(values.json, `${JSON.stringify(result, null, 2)}\n`);
