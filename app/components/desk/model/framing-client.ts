import { basisOf, type ShotSettings } from "~/core/version/shot-settings";
import type { FramerGround, FramerNews, ShotResult } from "~/core/version/version-framer";
import { isSameList } from "~/core/basics/structure";
import type { FramerOrder, FramerReply, LoadedTracks } from "~/workers/path-worker";

export type Results = ReadonlyMap<string, ShotResult>;

/** The part of a worker's interface that is used. */
export interface FramerPort {
  postMessage: (order: FramerOrder) => void;
  onReply: (listen: (reply: FramerReply) => void) => void;
}

/** Milliseconds within which answers are gathered before the desk renders again. */
const TOGETHER_MS = 120;

const sameSettings = (a: ShotSettings | undefined, b: ShotSettings): boolean =>
  a !== undefined && isSameList(basisOf(a), basisOf(b));

/**
 * Has a worker frame the shots of a version, and tells it only what has changed. While a shot is framed again its last
 * result stays; a shot that changes continuously, as in a drag, is shown as often as it can be framed.
 */
export class FramingClient {
  private version = 0;
  private sent = new Map<string, ShotSettings>();
  private order: readonly string[] = [];
  private news: FramerNews | null = null;
  private results: Results = new Map();
  private arrived: [string, ShotResult][] = [];
  private shownAt = -Infinity;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly port: FramerPort,
    private readonly onError: (message: string) => void,
    private readonly now = () => performance.now(),
  ) {
    port.onReply((reply) => this.take(reply));
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** The results so far, by shot id. */
  readonly getResults = (): Results => this.results;

  /** Begins to frame another version. */
  begin(ground: FramerGround): void {
    this.version++;
    [this.sent, this.order, this.news] = [new Map(), [], null];
    this.arrived = [];
    this.port.postMessage({ type: "version", number: this.version, ground });
    if (this.results.size > 0) this.show(new Map());
  }

  addTracks(tracks: LoadedTracks): void {
    this.port.postMessage({ type: "tracks", ...tracks });
  }

  /** Sends the present settings and findings. */
  tell(shots: readonly ShotSettings[], news: FramerNews): void {
    const changed = shots.filter((settings) => !sameSettings(this.sent.get(settings.shot.id), settings));
    const order = shots.map(({ shot }) => shot.id);
    const isReordered = order.length !== this.order.length || order.some((id, i) => id !== this.order[i]);
    const isNews = news !== this.news;
    if (changed.length === 0 && !isReordered && !isNews) return;
    for (const settings of changed) this.sent.set(settings.shot.id, settings);
    [this.order, this.news] = [order, news];
    this.port.postMessage({
      type: "film",
      changed,
      ...(isReordered ? { order } : {}),
      ...(isNews ? { news } : {}),
    });
  }

  /** Says which shots are needed first. */
  waitFor(ids: string[]): void {
    this.port.postMessage({ type: "first", ids });
  }

  dispose(): void {
    if (this.timer) clearTimeout(this.timer);
    this.listeners.clear();
  }

  private take(reply: FramerReply): void {
    if (reply.version !== this.version) return;
    if ("error" in reply) return this.onError(reply.error);
    this.arrived.push([reply.id, reply.result]);
    // A single answer is shown at once; answers in quick succession, together.
    if (this.now() - this.shownAt < TOGETHER_MS) this.timer ??= setTimeout(() => this.showArrived(), TOGETHER_MS);
    else this.showArrived();
  }

  private showArrived(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    const results = new Map([...this.results, ...this.arrived]);
    this.arrived = [];
    this.show(results);
  }

  private show(results: Results): void {
    this.shownAt = this.now();
    this.results = results;
    for (const listener of this.listeners) listener();
  }
}
