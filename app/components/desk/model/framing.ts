import { unpackTrack } from "~/core/subjects/tracking/packed-tracks";
import type { AnalysedTracks } from "~/core/subjects/tracking/shot-tracks";
import type { Track } from "~/core/subjects/tracking/track";
import { TrackStock } from "~/core/subjects/tracking/track-stock";
import type { ShotSettings } from "~/core/version/shot-settings";
import type { FramerGround, FramerNews } from "~/core/version/version-framer";
import type { LoadedTracks } from "~/workers/path-worker";
import { type FramerPort, FramingClient, type Results } from "./framing-client";
import { TrackLoader, type TracksToLoad } from "./track-loader";

/** Results so far; a new object when there are more. */
export interface FramedByNow {
  /** The tracks that have been loaded. */
  stock: TrackStock;
  results: Results;
}

const NO_RESULTS: Results = new Map();

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

/**
 * Has a worker frame the shots of a version, and loads the tracks that it and the desk need. What is sent before a worker
 * exists is passed on when it does.
 */
export class Framing {
  private worker: { client: FramingClient; loader: TrackLoader } | null = null;
  private ground: FramerGround | null = null;
  private told: [shots: readonly ShotSettings[], news: FramerNews] | null = null;
  private wanted: TracksToLoad | null = null;
  private now: FramedByNow = { stock: new TrackStock(), results: NO_RESULTS };
  private readonly listeners = new Set<() => void>();

  /**
   * @param load loads tracks from the server
   * @param playhead the frame around which tracks are loaded first
   */
  constructor(
    private readonly load: ConstructorParameters<typeof TrackLoader>[0],
    private readonly playhead: () => number,
    private readonly onError: (message: string) => void,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  readonly getNow = (): FramedByNow => this.now;

  /** Uses a worker until the returned function is called. */
  open(port: FramerPort): () => void {
    const client = new FramingClient(port, this.onError);
    const loader = new TrackLoader(this.load, this.playhead, (tracks) => this.take(tracks));
    this.worker = { client, loader };
    client.subscribe(() => this.show());
    if (this.ground) client.begin(this.ground);
    if (this.told) client.tell(...this.told);
    if (this.wanted) loader.want(this.wanted);
    return () => {
      loader.dispose();
      client.dispose();
      this.worker = null;
    };
  }

  /** Begins to frame another version. */
  begin(ground: FramerGround): void {
    [this.ground, this.told] = [ground, null];
    this.worker?.client.begin(ground);
  }

  /** Sends the present settings and findings. */
  tell(shots: readonly ShotSettings[], news: FramerNews): void {
    this.told = [shots, news];
    this.worker?.client.tell(shots, news);
  }

  /** Says which tracks are to be loaded. */
  want(wanted: TracksToLoad): void {
    this.wanted = wanted;
    this.worker?.loader.want(wanted);
  }

  /** Says which shots are needed first. */
  readonly waitFor = (ids: string[]): void => this.worker?.client.waitFor(ids);

  private take(arrived: LoadedTracks): void {
    const marks = arrived.marks.map(({ basis, track }) => ({ basis, track: unpackTrack(track) }));
    this.now.stock.add(arrived.analysed.map(unpackedLater), marks);
    this.worker?.client.addTracks(arrived);
    this.show();
  }

  private show(): void {
    this.now = { stock: this.now.stock, results: this.worker?.client.getResults() ?? NO_RESULTS };
    for (const listener of this.listeners) listener();
  }
}
