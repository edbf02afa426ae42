import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { toast } from "sonner";
import { lackingLooks, type Lacking } from "~/core/checks/lacking-pictures";
import { coveredLooks } from "~/core/checks/covered-looks";
import { textIsCovered } from "~/core/checks/covered-text";
import { followedTrack } from "~/core/path/solve-version";
import { cutLooks, type SecondLook } from "~/core/checks/second-looks";
import type { FilmState, VersionState } from "~/core/edits/film-state";
import { basisOf, byRange, keysOf, settledShot, shotSettings, type ShotSettings } from "~/core/edits/path-inputs";
import { settledPane } from "~/core/edits/shot-in-version";
import type { FramerNews, ShotResult } from "~/core/edits/version-framer";
import { paneCount } from "~/core/composition/layout";
import { ownIn, PANES } from "~/core/composition/stack";
import { shownIn, type VersionLayers } from "~/core/composition/shown";
import type { Size } from "~/core/geometry/box";
import { PerKey } from "~/core/per-key";
import { castOf } from "~/core/subjects/choosing/cast";
import type { ThingMark } from "~/core/subjects/marks/marked-things";
import { type AnalysedTracks, rangesOf } from "~/core/subjects/tracking/shot-tracks";
import { unpackTrack } from "~/core/subjects/tracking/packed-tracks";
import { TrackStock } from "~/core/subjects/tracking/track-stock";
import { laidOver, type Track } from "~/core/subjects/tracking/track";
import { type FrameRange, framesPerSecond, type Rate, rangeKey } from "~/core/time/rate";
import type { FramerReply, LoadedTracks } from "~/workers/path-worker";
import type { DeskShot } from "./desk-types";
import { FramingClient } from "./framing-client";
import { type MarkTrackName, TrackLoader, type TracksToLoad } from "./track-loader";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.useShots;

/** What is known of a film beside its state. */
export interface FilmFindings extends TracksToLoad, Pick<Lacking, "longHolds" | "undecoded"> {}

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
function useFraming({ film, state, version, findings, playhead }: ShotsOf) {
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
    const framing = new FramingClient(port, (message) => toast.error(t.thePathCouldNotBe(message)));
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
  useEffect(() => client?.begin({ picture, rate, target: { width, height } }), [client, picture, rate, width, height]);

  const [kept] = useState(() => new PerKey<ShotSettings>());
  const { shots, clips } = state;
  const settings = useMemo(
    () => shotSettings({ shots, clips }, version).map((each) => kept.get(each.shot.id, basisOf(each), () => each)),
    [kept, shots, clips, version],
  );
  const { marks, trackEdits, people } = state;
  const news = useMemo<FramerNews>(
    () => ({ opinions: { marks, trackEdits, people }, analysed: findings.analysed }),
    [marks, trackEdits, people, findings.analysed],
  );
  // After `begin`, of which the order of effects takes care: what is told is for the version that has begun.
  useEffect(() => client?.tell(settings, news), [client, settings, news, picture, rate, width, height]);

  const results = useSyncExternalStore(
    client?.subscribe ?? never,
    client?.getResults ?? (() => NO_RESULTS),
    () => NO_RESULTS,
  );
  return { settings, news, tracks, results, client };
}

const never = () => () => {};
const NO_RESULTS: ReadonlyMap<string, ShotResult> = new Map();
const NO_LAYERS: VersionLayers["layers"] = [];
const NO_TRACKS: readonly Track[] = [];

/** A path of a shot that has since been reshaped does not fit it any more. */
const fits = ({ framed }: ShotResult, { start, end }: FrameRange): boolean =>
  framed.keys[0]?.frame === start && framed.windows.length === end - start;

/** The shots of a version with what was found in them and the paths that follow. */
export function useShots(of: ShotsOf): { shots: DeskShot[]; client: FramingClient | null } {
  const { film, state, version, findings, pane } = of;
  const { settings, news, tracks, results, client } = useFraming(of);
  const { candidates } = state.film;
  const strengths = useMemo(
    () => new Map(candidates.map(({ transition, strength }) => [transition.frame, strength])),
    [candidates],
  );
  const marks = useMemo(
    () =>
      byRange(
        [...state.marks].sort((a, b) => a.frame - b.frame),
        state.shots,
      ),
    [state.marks, state.shots],
  );
  // While a window is dragged this runs with every move of the pointer: what is known of the other shots stays.
  const [known] = useState(() => ({ shots: new PerKey<DeskShot>(), lacking: new PerKey<SecondLook[]>() }));
  const { longHolds, undecoded } = findings;
  const { width, height, safeArea, layers } = version;
  const fps = framesPerSecond(film.rate);
  const frame = useMemo(() => ({ size: { width, height }, safeArea, fps }), [width, height, safeArea, fps]);
  const shots = useMemo(
    () =>
      settings.map((each, i) => {
        const { shot } = each;
        const answer = results.get(shot.id);
        const result = answer && fits(answer, shot) ? answer : null;
        const strength = strengths.get(shot.start);
        const lacking = known.lacking.get(shot.id, [shot, longHolds, undecoded], () =>
          lackingLooks({ longHolds, undecoded }, shot, film.rate),
        );
        const sources = tracks.stock.sourcesOf(shot, news.analysed, news.opinions) ?? [];
        const isAnalysed = rangesOf(shot, news.analysed).length > 0;
        // A layer that is dragged is nothing to a shot in which it cannot cover a text.
        const above = result?.looks.some(({ kind }) => kind === "text-cut") ? layers : NO_LAYERS;
        const from = [
          each,
          frame,
          above,
          i,
          pane,
          result,
          strength,
          lacking,
          isAnalysed,
          state.people,
          ...sources,
          ...marks[i]!,
        ];
        const looks = [...(isAnalysed ? cutLooks(shot, strength) : []), ...lacking];
        return known.shots.get(shot.id, from, () =>
          deskShot(each, i + 1, pane, isAnalysed, result, marks[i]!, looks, frame, above, () => ({
            tracks: tracks.stock.of(shot, news.analysed, news.opinions) ?? NO_TRACKS,
            picture: film.picture,
            people: state.people,
          })),
        );
      }),
    [
      known,
      settings,
      pane,
      results,
      strengths,
      marks,
      longHolds,
      undecoded,
      tracks,
      news,
      film,
      frame,
      layers,
      state.people,
    ],
  );
  return { shots, client };
}

interface Found {
  tracks: readonly Track[];
  picture: Size;
  people: FilmState["people"];
}

function deskShot(
  set: ShotSettings,
  number: number,
  chosenPane: number,
  isAnalysed: boolean,
  result: ShotResult | null,
  marks: readonly ThingMark[],
  looks: SecondLook[],
  { size, safeArea, fps }: Pick<VersionLayers, "safeArea" | "size" | "fps">,
  layers: VersionLayers["layers"],
  find: () => Found,
): DeskShot {
  const { shot, kept } = set;
  const settled = settledShot(set);
  const { layout } = settled.settings;
  const panes = PANES.slice(0, paneCount(layout)).filter((each) => layout.kind !== "stack" || !ownIn(layout, each));
  const pane = panes.find((each) => each === chosenPane) ?? 0;
  const solved = result?.framed ?? null;
  let found: Found | undefined;
  let cast: DeskShot["cast"] | undefined;
  const known = () => (found ??= find());
  const shown = result && shownIn([{ range: shot, ...result.framed }], size, fps);
  const isTextCovered = () =>
    shown !== null && textIsCovered(laidOver(known().tracks), kept, shown, { size, safeArea, fps, layers });
  const covered =
    solved && shown && safeArea ? coveredLooks(followedTrack(solved, known().tracks), kept, shown, safeArea) : [];
  return {
    ...shot,
    ...settledPane(settled, pane),
    ...{ number, pane, panes, isAnalysed },
    handKeys: keysOf(set.handKeys, pane),
    kept,
    marks,
    framed: pane === 0 ? solved : (solved?.others[pane - 1] ?? null),
    solved,
    shown,
    // Of what has not been looked at, nothing can be said yet.
    looks: [
      ...((isAnalysed && result?.looks) || []).filter((look) => look.kind !== "text-cut" || !isTextCovered()),
      ...covered,
      ...looks,
    ],
    tellingFrame: result?.tellingFrame ?? shot.start,
    get tracks() {
      return known().tracks;
    },
    get cast() {
      const { tracks, picture, people } = known();
      return (cast ??= castOf(tracks, shot, picture, people));
    },
  };
}
