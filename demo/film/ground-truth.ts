/** What is known of a made film, frame by frame, gathered while it is drawn. */
import { RATE, type Seen } from "./stage";
import type { Placed } from "./timeline";
import { SAMPLE_RATE, type Spoken } from "./voices";

/** The part of the stage that is filmed, in pixels of the stage, and the size it is filmed at. */
export interface Cutting {
  crop: { x: number; y: number; width: number; height: number };
  size: { width: number; height: number };
}

type Tuple = [number, number, number, number];

interface Track {
  shot: number;
  id: string;
  kind: "person" | "object";
  start: number;
  face?: (Tuple | null)[];
  boxes: (Tuple | null)[];
}

/** A track for each person and thing in each shot, with a box or null for every frame of it. */
export class GroundTruth {
  private readonly tracks = new Map<string, Track>();
  /** Frames at which each shot takes over: half-way through a dissolve, at the darkest frame of a fade. */
  private readonly starts: number[];

  constructor(
    private readonly placed: Placed[],
    private readonly spoken: Spoken[],
    private readonly cutting: Cutting,
    private readonly rate: number,
  ) {
    this.starts = placed.map(({ shot, start }) =>
      this.frameOf(shot.transition === "dissolve" ? start + shot.overlap / 2 : start),
    );
  }

  /** A moment of the stage's clock as a frame of the film. */
  private frameOf(moment: number): number {
    return Math.round((moment * this.rate) / RATE);
  }

  /** A box of the stage in pixels of the film. */
  private filmed([x, y, w, h]: readonly number[]): Tuple {
    const { crop, size } = this.cutting;
    const scale = size.width / crop.width;
    const values = [(x! - crop.x) * scale, (y! - crop.y) * scale, w! * scale, h! * scale];
    return values.map(Math.round) as Tuple;
  }

  private isIn([x, y, w, h]: Tuple): boolean {
    const { width, height } = this.cutting.size;
    return x < width && y < height && x + w > 0 && y + h > 0;
  }

  add(frame: number, seen: Seen): void {
    const shot = this.starts.findLastIndex((start) => frame >= start);
    const put = (id: string, kind: Track["kind"], box: readonly number[], face?: readonly number[] | null) => {
      const filmed = this.filmed(box);
      if (!this.isIn(filmed)) return;
      const key = `${shot}/${id}`;
      let track = this.tracks.get(key);
      if (!track) {
        track = { shot, id, kind, start: frame, ...(kind === "person" ? { face: [] } : {}), boxes: [] };
        this.tracks.set(key, track);
      }
      while (track.boxes.length < frame - track.start) {
        track.boxes.push(null);
        track.face?.push(null);
      }
      track.boxes.push(filmed);
      const filmedFace = face ? this.filmed(face) : null;
      track.face?.push(filmedFace && this.isIn(filmedFace) ? filmedFace : null);
    };
    for (const person of seen.people) put(person.id, "person", person.body, person.face);
    for (const object of seen.objects) put(object.id, "object", object.box);
  }

  toJson(frames: number): string {
    const { placed, starts, rate } = this;
    const shots = placed.map(({ shot, start }, i) => {
      const half = shot.overlap / 2;
      const range = shot.transition === "dissolve" ? [start, start + shot.overlap] : [start - half, start + half];
      return {
        name: shot.name,
        start: starts[i],
        end: starts[i + 1] ?? frames,
        transition: shot.transition,
        ...(shot.transition === "cut" ? {} : { range: range.map((moment) => this.frameOf(moment)) }),
      };
    });
    const speech = this.spoken.map(({ person, frame, samples }) => ({
      person,
      start: this.frameOf(frame),
      end: this.frameOf(frame + (samples.length / SAMPLE_RATE) * RATE),
    }));
    const titles = placed.flatMap(({ shot, start }) =>
      (shot.titles ?? []).map(({ from, to, box }) => ({
        start: this.frameOf(start + from),
        end: this.frameOf(start + to),
        box: this.filmed(box),
      })),
    );
    const { width, height } = this.cutting.size;
    const head = JSON.stringify({ width, height, rate: [rate, 1], frames, shots, speech, titles });
    const tracks = [...this.tracks.values()].map((track) => JSON.stringify(track));
    return `${head.slice(0, -1)},"tracks":[\n${tracks.join(",\n")}\n]}\n`;
  }
}
