/** Maps places and frames of a film to those of another that shows the same. */
import { type Box, clipBox, type Point, type Size, visiblePart, wholeOf } from "../geometry/box";
import { clampWindow } from "../geometry/crop-window";
import type { HandKey } from "../path/hand-key";
import { type FrameRange, inRange } from "../time/rate";
import { clipRanges, joinRanges } from "../time/ranges";

/** A part of the old film that is in the new one. */
export interface MovedPart {
  /** Frames of the old film. */
  from: FrameRange;
  /** The frames of the new film that show the remaining frames. */
  to: FrameRange;
  /** Frame of the new film = ratio × frame of the old one + shift. */
  shift: number;
  /** Area of the new film's picture to which an area of the old one's maps; the whole to the whole if left out. */
  areas?: { from: Box; to: Box };
}

/** Maps everything of the old film to the new one. */
export class Move {
  private readonly whole: { from: Box; to: Box };

  /** @param ratio frames of the new film per frame of the old one */
  constructor(
    private readonly parts: readonly MovedPart[],
    private readonly ratio: number,
    from: Size,
    private readonly to: Size,
  ) {
    this.whole = { from: wholeOf(from), to: wholeOf(to) };
  }

  private partAt(frame: number): MovedPart | undefined {
    return this.parts.find(({ from }) => inRange(frame, from));
  }

  /** The frames of the new film that show a range of the old one, which lies in one part; null for none. */
  range(range: FrameRange): FrameRange | null {
    const part = this.partAt(range.start);
    return part ? (clipRanges([this.placed(range, part)], part.to)[0] ?? null) : null;
  }

  /** Frame of a part, there or extrapolated. */
  private at(frame: number, { shift }: MovedPart): number {
    return Math.round(this.ratio * frame) + shift;
  }

  private placed({ start, end }: FrameRange, part: MovedPart): FrameRange {
    return { start: this.at(start, part), end: this.at(end, part) };
  }

  /** A frame in the new film; null where it is not there. */
  frame(frame: number): number | null {
    const part = this.partAt(frame);
    if (!part) return null;
    const to = this.at(frame, part);
    return inRange(to, part.to) ? to : null;
  }

  /** The remainders of ranges. */
  ranges(ranges: readonly FrameRange[]): FrameRange[] {
    return joinRanges(
      this.parts.flatMap((part) =>
        clipRanges(
          clipRanges(ranges, part.from).map((range) => this.placed(range, part)),
          part.to,
        ),
      ),
    );
  }

  /** Pixels of the new picture per pixel of the old at a frame, and the offset of its first. */
  private scaleAt(frame: number): { scale: Point; offset: Point } {
    const { from, to } = this.partAt(frame)?.areas ?? this.whole;
    const scale = { x: to.width / from.width, y: to.height / from.height };
    return { scale, offset: { x: to.x - scale.x * from.x, y: to.y - scale.y * from.y } };
  }

  /** A box of the old picture, at a frame of the old film, in the new one; it may reach beyond the picture. */
  place({ x, y, width, height }: Box, frame: number): Box {
    const { scale, offset } = this.scaleAt(frame);
    return {
      x: offset.x + x * scale.x,
      y: offset.y + y * scale.y,
      width: width * scale.x,
      height: height * scale.y,
    };
  }

  /** The part of such a box inside the picture. */
  box(box: Box, frame: number): Box {
    return clipBox(this.place(box, frame), this.to);
  }

  part(box: Box | null, frame: number): Box | null {
    return box && visiblePart(this.box(box, frame), this.to);
  }

  key(key: HandKey, aspect: number): HandKey[] {
    const frame = this.frame(key.frame);
    if (frame === null) return [];
    const { scale, offset } = this.scaleAt(key.frame);
    const placed = { x: offset.x + key.x * scale.x, y: offset.y + key.y * scale.y, height: key.height * scale.y };
    return [{ ...key, frame, ...clampWindow(placed, wholeOf(this.to), aspect) }];
  }
}
