import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { toast } from "sonner";
import { useShared } from "~/components/common/use-shared";
import type { CheckLimits } from "~/core/checks/check-settings";
import type { FilmState, VersionState } from "~/core/version/film-state";
import { basisOf, byRange, shotSettings, type ShotSettings } from "~/core/version/shot-settings";
import type { FramerNews, ShotResult } from "~/core/version/version-framer";
import type { Size } from "~/core/geometry/box";
import { PerKey } from "~/core/per-key";
import { type AnalysedTracks, rangesOf } from "~/core/subjects/tracking/shot-tracks";
import { unpackTrack } from "~/core/subjects/tracking/packed-tracks";
import { TrackStock } from "~/core/subjects/tracking/track-stock";
import type { Track } from "~/core/subjects/tracking/track";
import { type FrameRange, framesPerSecond, type Rate, rangeKey } from "~/core/time/rate";
import type { FramerReply, LoadedTracks } from "~/workers/path-worker";
import { deskShot, foundShot, type FoundShot } from "../model/desk-shot";
import type { DeskShot } from "../model/desk-types";
import { FramingClient } from "../model/framing-client";
import { type MarkTrackName, TrackLoader } from "../model/track-loader";
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
  /** Which pane is chosen in shots that have it. */
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

/** Analysed tracks that are unpacked when they are first looked at. */
function unpackedLater({ start, end, tracks: packed }: LoadedTracks["analysed"][number]): AnalysedTracks {
  let tracks: Track[] | undefined;
  return {
    start,
    end,
    get tracks() {
      return (tracks ??= packed.map(unpackTrack));
    },
  };
}

/** A worker that frames, and the tracks that it and the desk have, for as long as the desk is open. */
function useFraming({ film, state, version, findings, playhead }: ShotsOf, limits: CheckLimits) {
  // Another value when more has arrived, so that the desk is drawn again.
  const [tracks, setTracks] = useState(() => ({ stock: new TrackStock() }));
  const { stock } = tracks;
  const [client, setClient] = useState<FramingClient | null>(null);
  const [loader, setLoader] = useState<TrackLoader | null>(null);
  const { id } = film;

  useEffect(() => {
    const worker = new Worker(new URL("../../../workers/path-worker.ts", import.meta.url), { type: "module" });
    const port = {
      postMessage: (order: unknown) => worker.postMessage(order),
      onReply: (listen: (reply: FramerReply) => void) =>
        worker.addEventListener("message", ({ data }: MessageEvent<FramerReply>) => listen(data)),
    };
    const framing = new FramingClient(port, (message) => toast.error(t.pathFailed(message)));
    const loading = new TrackLoader(
      (ranges, marks) => fetchTracks(id, ranges, marks),
      playhead,
      (arrived) => {
        const marks = arrived.marks.map(({ basis, track }) => ({ basis, track: unpackTrack(track) }));
        stock.add(arrived.analysed.map(unpackedLater), marks);
        framing.addTracks(arrived);
        setTracks({ stock });
      },
    );
    setClient(framing);
    setLoader(loading);
    return () => {
      loading.dispose();
      framing.dispose();
      worker.terminate();
      setClient(null);
    };
  }, [id, stock, playhead]);

  useEffect(() => loader?.want(findings), [loader, findings]);

  const { picture, rate } = film;
  const { width, height } = version;
  useEffect(
    () => client?.begin({ picture, rate, target: { width, height }, limits }),
    [client, picture, rate, width, height, limits],
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
  // After `begin`, of which the order of effects takes care: what is told is for the version that has begun.
  useEffect(() => client?.tell(settings, news), [client, settings, news, picture, rate, width, height, limits]);

  const results = useSyncExternalStore(
    client?.subscribe ?? never,
    client?.getResults ?? (() => NO_RESULTS),
    () => NO_RESULTS,
  );
  return { settings, news, tracks, results, client };
}

const never = () => () => {};
const NO_RESULTS: ReadonlyMap<string, ShotResult> = new Map();

/** A path of a shot that has since been reshaped does not fit it any more. */
const fits = ({ framed }: ShotResult, { start, end }: FrameRange): boolean =>
  framed.keys[0]?.frame === start && framed.windows.length === end - start;

/** The shots of a version with what was found in them and the paths that follow. */
export function useShots(of: ShotsOf): { shots: DeskShot[]; client: FramingClient | null } {
  const { film, state, version, findings, pane } = of;
  const limits = useShared(version.checkLimits);
  const { settings, news, tracks, results, client } = useFraming(of, limits);
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
  // While a window is dragged this runs with every move of the pointer: what is known of the other shots stays.
  const [known] = useState(() => ({ found: new PerKey<FoundShot>(), shots: new PerKey<DeskShot>() }));
  const found = useMemo(
    () =>
      settings.map((set): FoundShot => {
        const { shot } = set;
        const answer = results.get(shot.id);
        const result = answer && fits(answer, shot) ? answer : null;
        const sources = tracks.stock.sourcesOf(shot, news.analysed, news.opinions) ?? [];
        const isAnalysed = rangesOf(shot, news.analysed).length > 0;
        return known.found.get(shot.id, [set, result, isAnalysed, frame, ...sources], () =>
          foundShot(set, result, isAnalysed, frame, () => tracks.stock.of(shot, news.analysed, news.opinions) ?? []),
        );
      }),
    [known, settings, results, tracks, news, frame],
  );
  const flags = useFlags({ film, state, version, findings, limits }, found);
  const shots = useMemo(
    () =>
      found.map((each, i) => {
        const from = [each, i, pane, flags[i], people, ...marks[i]!];
        return known.shots.get(each.set.shot.id, from, () =>
          deskShot(each, { number: i + 1, chosenPane: pane, marks: marks[i]!, flags: flags[i]!, picture, people }),
        );
      }),
    [known, found, pane, flags, people, marks, picture],
  );
  return { shots, client };
}
