import { carveShots, type FoundShot } from "../shots/found-shots";
import type { Difference } from "./difference";

/**
 * A difference made before shots were found, as it would be had they been found already: undone, it leaves the cuts that
 * were found.
 * @param partOf of each new shot, the shot that it was part of
 * @param newId gives the id of a part that begins at a frame
 */
export function carveDifference(
  difference: Difference,
  found: readonly FoundShot[],
  partOf: ReadonlyMap<string, string>,
  newId: (start: number) => string,
): Difference {
  const { shots, inVersions } = difference;
  const parts = (id: string) => [...partOf].flatMap(([part, whole]) => (whole === id ? [part] : []));
  return {
    ...difference,
    ...(shots ? { shots: { ...shots, put: carveShots(shots.put, found, newId).shots } } : {}),
    ...(inVersions
      ? {
          inVersions: inVersions.flatMap((says) => [
            says,
            ...parts(says.shotId).map((shotId) => ({ ...says, shotId })),
          ]),
        }
      : {}),
  };
}
