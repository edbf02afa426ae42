/**
 * The worst day: damaged films, a server that is killed, a full disk, second starts, stops. Prints what was tried, what
 * held and what failed.
 *
 *   ./glad-pan bench worst-day [--films 300] [--kills 50] [--seed 1]
 */
import { parseArgs } from "node:util";
import { damagedFilms } from "./films";
import { fullDisk } from "./full-disk";
import { killedServers } from "./kills";
import type { Outcome } from "./outcome";
import { orderlyStops, secondStarts } from "./starts";

const { values } = parseArgs({
  options: {
    films: { type: "string", default: "300" },
    kills: { type: "string", default: "50" },
    seed: { type: "string", default: "1" },
  },
});
const [films, kills, seed] = [values.films, values.kills, values.seed].map(Number) as [number, number, number];
const log = (text: string) => console.error(text);

const outcomes: Outcome[] = [];
for (const run of [
  secondStarts,
  () => orderlyStops(5),
  fullDisk,
  () => killedServers(kills, seed, log),
  () => damagedFilms(films, seed, log),
]) {
  const outcome = await run();
  for (const failure of outcome.failures) log(`FAILED ${outcome.what}: ${failure}`);
  outcomes.push(outcome);
}
console.table(
  outcomes.map(({ what, tried, failures }) => ({
    what,
    tried,
    held: tried - failures.length,
    failed: failures.length,
  })),
);
process.exitCode = outcomes.some(({ failures }) => failures.length > 0) ? 1 : 0;
