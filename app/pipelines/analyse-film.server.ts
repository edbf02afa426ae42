import { type PictureFaults, pictureFaults } from "~/core/checks/picture-faults";
import { type Activity, ActivityMeter, joinActivity } from "~/core/activity/activity";
import type { Box } from "~/core/geometry/box";
import { decideTransitions } from "~/core/shots/detect-transitions";
import { TransitionFinder, type TransitionsSoFar } from "~/core/shots/find-transitions";
import { hardTransition, shotsBetween, type Transition } from "~/core/shots/transition";
import { buildTracks } from "~/core/subjects/tracking/build-tracks";
import type { CameraStep } from "~/core/subjects/detecting/camera-motion";
import type { FrameDetections } from "~/core/subjects/detecting/detection";
import { type Person, recognise } from "~/core/subjects/choosing/people";
import { chooseSubject } from "~/core/subjects/choosing/rank";
import { speakingTurns } from "~/core/subjects/speaking/speaking";
import { stayingOn } from "~/core/subjects/tracking/stay";
import type { Track } from "~/core/subjects/tracking/track";
import { speechIn, type VoiceActivity } from "~/core/subjects/speaking/voice";
import { type FrameRange, framesPerSecond, inRange } from "~/core/time/rate";
import { joinRanges } from "~/core/time/ranges";
import { Detector } from "~/media/detect/detector.server";
import type { FilmFile } from "~/media/film-file";
import { smallFrames } from "~/media/small-frames.server";
import { SECONDS_PER_PIECE } from "~/media/voice.server";
import { ActiveAreas } from "./active-areas.server";
import { type AnalysedShot, type AnalysisStore, forgetfulStore } from "./analysis-store";
import { leadOn } from "./lead-on.server";
import { Listener } from "./listener.server";
import { readWords } from "./read-words.server";
import { type SeenChunk, watchFilm, watchIntervals } from "./watch-film.server";

export interface AnalysisOptions {
  store: AnalysisStore;
  /** Range to be analysed; the whole film if left out. It has to begin and end at shot boundaries. */
  range?: FrameRange;
  /**
   * Asked between two chunks whether to continue.
   * @param left unfinished part of the range
   * @param watchedTo end of the part that has been watched
   */
  goesOn?: (left: FrameRange, watchedTo: number) => Promise<boolean>;
  /** Sensitivity to transitions, 0 to 100. */
  sensitivity?: number;
  /** The picture area inside the letterbox, where it is known; otherwise it is detected. */
  active?: Box | null;
  /** Detects it. */
  areas?: ActiveAreas;
  /** 0 to 1 */
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

export interface Analysis {
  /** Frames whose pictures could not be decoded. */
  undecoded: FrameRange[];
  /** Where the picture flashes, is black or is frozen. */
  faults: PictureFaults;
  shots: AnalysedShot[];
  people: Person[];
}

/** Analyses a film and finishes its shots one after the other. */
class Analyser {
  private readonly finder: TransitionFinder;
  private readonly detector: Detector;
  private readonly listener: Listener;
  private readonly range: FrameRange;
  private readonly areas: ActiveAreas;
  private readonly meter: ActivityMeter;
  private people: Person[];
  private detected: FrameDetections[] = [];
  private camera: CameraStep[] = [];
  private watchedTo: number;
  private finishedTo: number;

  constructor(
    private readonly film: FilmFile,
    private readonly options: AnalysisOptions,
  ) {
    this.range = options.range ?? { start: 0, end: film.info.frames };
    const kept = options.store.load(this.range);
    this.finishedTo = kept?.finishedTo ?? this.range.start;
    this.people = kept?.people ?? [];
    this.finder = new TransitionFinder(film.info.rate, this.range.start, kept?.transitions);
    this.areas = options.areas ?? new ActiveAreas(film, options.signal);
    this.meter = new ActivityMeter(film.info.rate);
    const { chunk } = watchIntervals(film.info.rate);
    this.watchedTo = this.range.start + Math.floor((this.finder.needed - this.range.start) / chunk) * chunk;
    for (const chunk of kept?.chunks ?? []) {
      this.take(chunk);
      // The next chunk is measured against it; its own activity has been stored already.
      this.meter.measure(chunk.features, new Uint8Array(chunk.features.length));
    }
    // It takes a second to start, in a thread of its own.
    this.detector = new Detector(smallFrames(film.info.picture).size);
    this.listener = new Listener(film, Math.min(this.finishedTo, this.watchedTo), options.signal);
  }

  /** Measures the activity in a chunk. */
  private async measure({ range, features }: SeenChunk): Promise<Activity> {
    const { rate } = this.film.info;
    await this.listener.upTo(range.end / framesPerSecond(rate));
    return this.meter.measure(features, speechIn(this.voice, range, rate));
  }

  private get voice(): VoiceActivity {
    return { speech: this.listener.speech, secondsPerPiece: SECONDS_PER_PIECE };
  }

  private take({ range, features, detected, camera }: SeenChunk): void {
    features.forEach((feature, i) => {
      if (range.start + i >= this.finder.next) this.finder.add(feature);
    });
    for (const seen of detected) this.detected.push(seen);
    for (const step of camera) this.camera.push(step);
    this.watchedTo = range.end;
  }

  /** @returns the people of the film */
  async run(): Promise<Person[]> {
    const { store, goesOn, onProgress, signal } = this.options;
    const { start, end } = this.range;
    const report = () => onProgress?.((this.watchedTo - start) / (end - start));
    report();
    const { detector } = this;
    // The shots of a chunk are finished while the next is watched: both wait for the decoder now and then.
    let finishing = Promise.resolve();
    try {
      // Bars would dilute the differences between shots.
      const { active = this.areas.inFilm() } = this.options;
      const left = { start: this.watchedTo, end };
      for await (const chunk of watchFilm(this.film, left, start, active, detector, signal)) {
        await finishing;
        this.take(chunk);
        store.saveActivity(chunk.range, await this.measure(chunk));
        store.saveChunk(chunk, this.known, this.finder.needed);
        finishing = this.finishShots(this.finder.needed);
        // A failure is handled after the next chunk has been watched.
        finishing.catch(() => {});
        report();
        if (goesOn && !(await goesOn({ start: this.finishedTo, end }, this.watchedTo))) break;
      }
      await finishing;
      if (this.watchedTo < end) return this.people;
      this.finder.end();
      store.saveTransitions(this.known);
      await this.finishShots(end);
    } finally {
      // Shots being finished still need the listener.
      await Promise.allSettled([finishing]);
      await Promise.all([this.listener.dispose(), detector.dispose()]);
    }
    return this.people;
  }

  private get known(): TransitionsSoFar {
    const { candidates, settled } = this.finder;
    return { candidates, settled };
  }

  private decide(): Transition[] {
    return decideTransitions(this.finder.candidates, this.options.sensitivity);
  }

  /** Finishes the shots that end by a frame, before which all transitions are decided. */
  private async finishShots(decidedTo: number): Promise<void> {
    const { info } = this.film;
    const transitions = this.decide();
    const due = shotsBetween(transitions, this.range).filter(
      ({ start, end }) => start >= this.finishedTo && end <= decidedTo,
    );
    const finished: AnalysedShot[] = [];
    for (const shot of due) {
      await this.listener.upTo(shot.end / framesPerSecond(info.rate));
      const camera = this.camera.filter(({ frame }) => frame > shot.start && frame < shot.end);
      const tracks = await this.trackShot(shot, camera);
      const begins = transitions.find(({ frame }) => frame === shot.start) ?? hardTransition(shot.start, "cut");
      const detected = this.detected.filter(({ frame }) => inRange(frame, shot));
      const { active = await this.areas.inShot(shot, detected) } = this.options;
      finished.push({ range: shot, begins, tracks, active });
    }
    const done = finished.at(-1)?.range.end;
    if (done === undefined) return;
    this.finishedTo = done;
    this.detected = this.detected.filter(({ frame }) => frame >= done);
    this.camera = this.camera.filter(({ frame }) => frame >= done);
    this.options.store.saveShots(finished, this.people, Math.min(done, this.finder.needed));
  }

  /** The track of a subject, continued through frames without detections; any of the other tracks may be a piece of it. */
  private async throughShot(track: Track, shot: FrameRange, camera: CameraStep[]): Promise<Track> {
    switch (track.kind) {
      case "object":
      case "salient":
        return leadOn(this.film, track, shot, this.options.signal);
      case "motion": {
        const led = track.held ? await leadOn(this.film, track, shot, this.options.signal) : track;
        return stayingOn(led, shot, camera, this.film.info.picture);
      }
      default:
        return track;
    }
  }

  private async trackShot(shot: FrameRange, camera: CameraStep[]): Promise<Track[]> {
    const { picture, rate } = this.film.info;
    const seen: Track[] = [];
    const built = buildTracks(this.detected, shot, rate, picture);
    for (const track of await readWords(this.film, built, this.detector, this.options.signal)) {
      // A thing moved by a hand is in the hand before and afterwards, and is chosen for that.
      seen.push(track.held ? await this.throughShot(track, shot, camera) : track);
    }
    const best = chooseSubject(seen, shot, picture)?.track;
    const whole = best && !best.held && (await this.throughShot(best, shot, camera));
    const tracks = whole ? seen.map((track) => (track === best ? whole : track)) : seen;
    const faces = tracks.filter(({ kind }) => kind === "face");
    const turns = speakingTurns(faces, shot, speechIn(this.voice, shot, rate), rate);
    for (const track of tracks) {
      const speaking = turns.get(track.id);
      if (speaking) track.speaking = speaking;
      delete track.mouth;
    }
    this.people = recognise(this.people, tracks);
    return tracks;
  }
}

/**
 * Finds the shots of a film, their tracks, their people, and who speaks. Shots are finished and passed to the store while
 * the rest of the film is watched. Memory does not grow with the film except for one number per piece of sound, and one per
 * candidate of a transition.
 * @returns the people of the film
 * @throws FilmError if the film cannot be decoded to its end; CancelledError if the signal is aborted
 */
export async function analyseFilm(film: FilmFile, options: AnalysisOptions): Promise<Person[]> {
  return new Analyser(film, options).run();
}

/** Analyses a film in one run that cannot be resumed, and returns all findings. */
export async function analyseAtOnce(film: FilmFile, options: Omit<AnalysisOptions, "store"> = {}): Promise<Analysis> {
  const shots: AnalysedShot[] = [];
  const undecoded: FrameRange[] = [];
  const activity: (Activity & { start: number })[] = [];
  const store: AnalysisStore = {
    ...forgetfulStore(),
    saveActivity: ({ start }, part) => void activity.push({ start, ...part }),
    saveChunk: (chunk) => void undecoded.push(...chunk.undecoded),
    saveShots: (finished) => void shots.push(...finished),
  };
  const people = await analyseFilm(film, { ...options, store });
  const { frames, rate } = film.info;
  const faults = pictureFaults(joinActivity(activity, frames), rate);
  return { shots, people, undecoded: joinRanges(undecoded), faults };
}
