import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { toast } from "sonner";
import { useShared } from "~/components/common/use-shared";
import type { CheckLimits } from "~/core/checks/check-settings";
import type { FilmState, VersionState } from "~/core/version/film-state";
import { basisOf, byRange, shotSettings, type ShotSettings } from "~/core/version/shot-settings";
import type { FramerNews, ShotResult } from "~/core/version/version-framer";
import type { Size } from "~/core/geometry/box";
import { PerKey } from "~/core/basics/per-key";
import { rangesOf } from "~/core/subjects/tracking/shot-tracks";
import { type FrameRange, framesPerSecond, type Rate, rangeKey } from "~/core/time/rate";
import type { FramerReply, LoadedTracks } from "~/workers/path-worker";
import { deskShot, foundShot, type FoundShot } from "../model/desk-shot";
import type { DeskShot } from "../model/desk-types";
import { Framing } from "../model/framing";
import type { FramerPort } from "../model/framing-client";
import type { MarkTrackName } from "../model/track-loader";
import type { FilmFindings } from "../model/desk-inputs";
import { useFlags } from "./use-flags";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.useShots;

interface ShotsOf {
  film: { id: string; picture: Size; rate: Rate };
  state: FilmState;
  version: VersionState;
  findings: FilmFindings;
  playhead: () => number;
  /** Which pane is selected in shots that have it. */
  pane: number;
}

async function fetchTracks(
  filmId: string,
  ranges: readonly FrameRange[],
  marks: readonly MarkTrackName[],
): Promise<LoadedTracks> {
  const query = new URLSearchParams({
    ranges: ranges.map(rangeKey).join(","),
    marks: marks.map(({ id }) => id).join(","),
  });
  const response = await fetch(`/films/${filmId}/tracks?${query}`);
  if (!response.ok) throw new Error(`tracks: ${response.status}`);
  return (await response.json()) as LoadedTracks;
}

const portOf = (worker: Worker): FramerPort => ({
  postMessage: (order) => worker.postMessage(order),
  onReply: (listen) => worker.addEventListener("message", ({ data }: MessageEvent<FramerReply>) => listen(data)),
});

/** A worker that frames the version's shots, for as long as the desk is open. */
function useFraming({ film, state, version, findings, playhead }: ShotsOf, limits: CheckLimits) {
  const { id, picture, rate } = film;
  const [framing] = useState(
    () =>
      new Framing(
        (ranges, marks) => fetchTracks(id, ranges, marks),
        playhead,
        (message) => toast.error(t.pathFailed(message)),
      ),
  );
  useEffect(() => {
    const worker = new Worker(new URL("../../../workers/path-worker.ts", import.meta.url), { type: "module" });
    const close = framing.open(portOf(worker));
    return () => {
      close();
      worker.terminate();
    };
  }, [framing]);
  useEffect(() => framing.want(findings), [framing, findings]);

  const { width, height } = version;
  useEffect(
    () => framing.begin({ picture, rate, target: { width, height }, limits }),
    [framing, picture, rate, width, height, limits],
  );

  const [kept] = useState(() => new PerKey<ShotSettings>());
  const { shots, clips, attention } = state;
  const settings = useMemo(
    () =>
      shotSettings({ shots, clips, attention }, version).map((each) =>
        kept.get(each.shot.id, basisOf(each), () => each),
      ),
    [kept, shots, clips, attention, version],
  );
  const { marks, trackEdits, people } = state;
  const news = useMemo<FramerNews>(
    () => ({ opinions: { marks, trackEdits, people }, analysed: findings.analysed }),
    [marks, trackEdits, people, findings.analysed],
  );
  // After `begin`, by the order of effects: what is told is for the version that has begun.
  useEffect(() => framing.tell(settings, news), [framing, settings, news, picture, rate, width, height, limits]);

  const { stock, results } = useSyncExternalStore(framing.subscribe, framing.getNow, framing.getNow);
  return { settings, news, stock, results, waitFor: framing.waitFor };
}

/** A path no longer fits a shot that has since been given other borders. */
const fits = ({ framed }: ShotResult, { start, end }: FrameRange): boolean =>
  framed.keys[0]?.frame === start && framed.windows.length === end - start;

/** The shots of a version, with their tracks and the paths that follow. */
export function useShots(inputs: ShotsOf): { shots: DeskShot[]; waitFor: (shotIds: string[]) => void } {
  const { film, state, version, findings, pane } = inputs;
  const limits = useShared(version.checkLimits);
  const { settings, news, stock, results, waitFor } = useFraming(inputs, limits);
  const marks = useMemo(
    () =>
      byRange(
        [...state.marks].sort((a, b) => a.frame - b.frame),
        state.shots,
      ),
    [state.marks, state.shots],
  );
  const { rate, picture } = film;
  const { people } = state;
  const { width, height } = version;
  const frame = useMemo(() => ({ size: { width, height }, fps: framesPerSecond(rate) }), [width, height, rate]);
  // While a window is dragged this runs with every move of the pointer: what is known of other shots is reused.
  const [known] = useState(() => ({ found: new PerKey<FoundShot>(), shots: new PerKey<DeskShot>() }));
  const found = useMemo(
    () =>
      settings.map((set): FoundShot => {
        const { shot } = set;
        const answer = results.get(shot.id);
        const result = answer && fits(answer, shot) ? answer : null;
        const sources = stock.sourcesOf(shot, news.analysed, news.opinions) ?? [];
        const isAnalysed = rangesOf(shot, news.analysed).length > 0;
        return known.found.get(shot.id, [set, result, isAnalysed, frame, ...sources], () =>
          foundShot(set, result, isAnalysed, frame, () => stock.of(shot, news.analysed, news.opinions) ?? []),
        );
      }),
    [known, settings, results, stock, news, frame],
  );
  const flags = useFlags({ film, state, version, findings, limits }, found);
  const shots = useMemo(
    () =>
      found.map((each, i) => {
        const from = [each, i, pane, flags[i], people, ...marks[i]!];
        return known.shots.get(each.set.shot.id, from, () =>
          deskShot(each, { number: i + 1, selectedPane: pane, marks: marks[i]!, flags: flags[i]!, picture, people }),
        );
      }),
    [known, found, pane, flags, people, marks, picture],
  );
  return { shots, waitFor };
}
