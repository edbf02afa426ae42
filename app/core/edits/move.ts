/** Where everything of a film is in another one that shows the same. */
import { type Box, clipBox, type Point, type Size, visiblePart, wholeOf } from "../geometry/box";
import { clampWindow } from "../geometry/crop-window";
import type { HandKey } from "../path/hand-key";
import { type FrameRange, inRange } from "../time/rate";
import { clipRanges, joinRanges } from "../time/ranges";

/** A part of the old film that is in the new one. */
export interface MovedPart {
  /** Frames of the old film. */
  from: FrameRange;
  /** The frames of the new film that show what is there of them. */
  to: FrameRange;
  /** Frame of the new film = ratio × frame of the old one + shift. */
  shift: number;
  /** Where in the new film's picture a box of the old one's is; all of it in all of it if left out. */
  areas?: { from: Box; to: Box };
}

/** Where everything of the old film is in the new one. */
export class Move {
  private readonly whole: { from: Box; to: Box };

  /** @param ratio frames of the new film for each of the old one */
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

  /** Where a frame of a part is, or would be if all of the part were there. */
  private at(frame: number, { shift }: MovedPart): number {
    return Math.round(this.ratio * frame) + shift;
  }

  private placed({ start, end }: FrameRange, part: MovedPart): FrameRange {
    return { start: this.at(start, part), end: this.at(end, part) };
  }

  /** Where a frame is; null where it is not in the new film. */
  frame(frame: number): number | null {
    const part = this.partAt(frame);
    if (!part) return null;
    const to = this.at(frame, part);
    return inRange(to, part.to) ? to : null;
  }

  /** What is left of ranges. */
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

  /** How many pixels of the new picture one of the old is at a frame, and where its first lies. */
  private scaleAt(frame: number): { scale: Point; offset: Point } {
    const { from, to } = this.partAt(frame)?.areas ?? this.whole;
    const scale = { x: to.width / from.width, y: to.height / from.height };
    return { scale, offset: { x: to.x - scale.x * from.x, y: to.y - scale.y * from.y } };
  }

  /** Where a box of the old picture is, as it was at a frame of the old film; it may reach out of the picture. */
  place({ x, y, width, height }: Box, frame: number): Box {
    const { scale, offset } = this.scaleAt(frame);
    return {
      x: offset.x + x * scale.x,
      y: offset.y + y * scale.y,
      width: width * scale.x,
      height: height * scale.y,
    };
  }

  /** What is in the picture of a box. */
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
