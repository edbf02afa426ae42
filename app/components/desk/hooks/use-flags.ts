import { useMemo, useState } from "react";
import { useShared } from "~/components/common/use-shared";
import type { CheckLimits } from "~/core/checks/check-settings";
import { flagPrint } from "~/core/checks/flag-print";
import type { Flag } from "~/core/checks/flag";
import { byPlace, filmFlags } from "~/core/checks/shot-flags";
import type { FilmState, VersionState } from "~/core/version/film-state";
import { goesOnFromBefore } from "~/core/version/flags-of-framing";
import { flagsInFraming } from "~/core/version/version-flags";
import { followedTrack } from "~/core/path/solve-version";
import { PerKey } from "~/core/basics/per-key";
import { framesPerSecond, type Rate } from "~/core/time/rate";
import type { FoundShot } from "../model/desk-shot";
import type { DeskFlag } from "../model/desk-types";
import type { FilmFindings } from "../model/desk-inputs";

interface FlagsOf {
  film: { rate: Rate };
  state: FilmState;
  version: VersionState;
  findings: FilmFindings;
  limits: CheckLimits;
}

const NO_LAYERS: VersionState["layers"] = [];
const NO_FLAGS: readonly Flag[] = [];

/** The flags of each shot that are about the film and not its framing; identical while nothing changes. */
function useFilmFlags({ film, state, version, findings, limits }: FlagsOf, found: readonly FoundShot[]) {
  const { candidates } = state.film;
  const strengths = useMemo(
    () => new Map(candidates.map(({ transition, strength }) => [transition.frame, strength])),
    [candidates],
  );
  const { longHolds, undecoded, faults } = findings;
  const { rate } = film;
  const { captions } = state;
  const { pace } = version.captions.rules;
  return useShared(
    useMemo(() => {
      const at = { faults, lacking: { longHolds, undecoded }, captions, pace, limits, rate };
      return found.map(({ set: { shot, kept }, isAnalysed }) =>
        isAnalysed ? filmFlags(shot, kept, strengths.get(shot.start), at) : NO_FLAGS,
      );
    }, [found, strengths, faults, longHolds, undecoded, captions, pace, limits, rate]),
  );
}

/** The flags of each shot, in order of its frames. */
export function useFlags(inputs: FlagsOf, found: readonly FoundShot[]): readonly (readonly DeskFlag[])[] {
  const { film, version, limits } = inputs;
  const ofFilm = useFilmFlags(inputs, found);
  const { width, height, safeArea, layers, reviewedFlags } = version;
  const { rate } = film;
  const above = useMemo(
    () => ({ size: { width, height }, safeArea, fps: framesPerSecond(rate), limits, rate }),
    [width, height, safeArea, limits, rate],
  );
  const [known] = useState(() => ({ flags: new PerKey<DeskFlag[]>(), seen: new PerKey<DeskFlag[]>() }));
  const flags = useMemo(
    () =>
      found.map((each, i) => {
        const { set, result, isAnalysed, shown } = each;
        const { shot } = set;
        const before = found[i - 1]?.result?.sides ?? null;
        const next = found[i + 1]?.set;
        // Dragging a layer does not affect a shot in which it cannot cover a text.
        const over = result?.flags.some(({ kind }) => kind === "text-cut") ? layers : NO_LAYERS;
        const from = [each, above, over, before, goesOnFromBefore(next), ofFilm[i]];
        return known.flags.get(shot.id, from, () => {
          const all = [...ofFilm[i]!];
          // Nothing is known yet of a shot that has not been analysed.
          if (result && shown && isAnalysed) {
            const whole = () => ({ tracks: each.tracks, subject: followedTrack(result.framed, each.tracks) });
            const framed = { shown, found: whole };
            all.push(...flagsInFraming(set, result, framed, { before, next }, { ...above, layers: over }));
          }
          return all.sort(byPlace).map((flag) => ({ ...flag, print: flagPrint(flag, shot, shown), isReviewed: false }));
        });
      }),
    [known, found, layers, above, ofFilm],
  );
  return useMemo(() => {
    const seen = new Set(reviewedFlags);
    return flags.map((ofShot, i) => {
      const seenOf = ofShot.filter(({ print }) => seen.has(print)).map(({ print }) => print);
      return known.seen.get(found[i]!.set.shot.id, [ofShot, seenOf.join()], () =>
        ofShot.map((flag) => ({ ...flag, isReviewed: seen.has(flag.print) })),
      );
    });
  }, [known, flags, found, reviewedFlags]);
}
