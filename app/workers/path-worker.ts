/** Frames the shots of a version off the interface's thread: an adapter from messages to `VersionFramer`. */
import { assertNever } from "~/core/basics/assert-never";
import { type FramerGround, type FramerNews, type ShotResult, VersionFramer } from "~/core/version/version-framer";
import type { ShotSettings } from "~/core/version/shot-settings";
import { shareStructure } from "~/core/basics/structure";
import { type PackedTrack, unpackTrack } from "~/core/subjects/tracking/packed-tracks";
import { TrackStock } from "~/core/subjects/tracking/track-stock";
import type { FrameRange } from "~/core/time/rate";

export interface LoadedTracks {
  analysed: (FrameRange & { tracks: PackedTrack[] })[];
  marks: { basis: string; track: PackedTrack }[];
}

/** Messages to the worker. */
export type FramerOrder =
  /** Frames another version from now on; answers carry its number. */
  | { type: "version"; number: number; ground: FramerGround }
  | ({ type: "tracks" } & LoadedTracks)
  /** What is set and known as it is now; of the shots only those that have changed, and which there are if others. */
  | { type: "film"; changed: ShotSettings[]; order?: string[]; news?: FramerNews }
  /** The shots that are waited for. */
  | { type: "first"; ids: string[] };

export type FramerReply = { version: number; id: string } & ({ result: ShotResult } | { error: string });

const stock = new TrackStock();
let framer: VersionFramer | null = null;
let version = 0;
let settings = new Map<string, ShotSettings>();
let order: string[] = [];
let news: FramerNews | null = null;
let first: ReadonlySet<string> = new Set();
let timer: ReturnType<typeof setTimeout> | null = null;

const update = () => {
  if (!framer || !news) return;
  framer.take(
    order.flatMap((id) => settings.get(id) ?? []),
    news,
  );
};

/** One shot at a time: messages received meanwhile take effect with the next. */
function work(): void {
  timer = null;
  const answer = framer?.next(first);
  if (!answer) return;
  const { id } = answer;
  const said =
    "result" in answer
      ? { result: answer.result }
      : { error: answer.error instanceof Error ? answer.error.message : String(answer.error) };
  self.postMessage({ version, id, ...said } satisfies FramerReply);
  timer = setTimeout(work, 0);
}

function carryOut(told: FramerOrder): void {
  switch (told.type) {
    case "version":
      version = told.number;
      framer = new VersionFramer(told.ground, stock);
      settings = new Map();
      return;
    case "tracks":
      stock.add(
        told.analysed.map((range) => ({ ...range, tracks: range.tracks.map(unpackTrack) })),
        told.marks.map(({ basis, track }) => ({ basis, track: unpackTrack(track) })),
      );
      return update();
    case "film":
      for (const changed of told.changed) settings.set(changed.shot.id, changed);
      order = told.order ?? order;
      news = told.news ? shareStructure(news, told.news) : news;
      return update();
    case "first":
      first = new Set(told.ids);
      return;
    default:
      assertNever(told);
  }
}

self.addEventListener("message", ({ data }: MessageEvent<FramerOrder>) => {
  carryOut(data);
  timer ??= setTimeout(work, 0);
});
