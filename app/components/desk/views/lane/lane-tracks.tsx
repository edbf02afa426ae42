import { Group, Line, Text } from "react-konva";
import { boxAt } from "~/core/subjects/tracking/track";
import type { CastMember } from "~/core/subjects/choosing/cast";
import { type DeskShot, subjectColour } from "../../model/desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";

/** Ranges in which a track is seen, as canvas points. */
function seenLines(
  { track }: CastMember,
  shot: DeskShot,
  geometry: LaneGeometry,
  drawn: { start: number; end: number },
): number[][] {
  const lines: number[][] = [];
  let current: number[] | null = null;
  const step = Math.max(1, Math.floor(3 / geometry.pxPerFrame));
  for (let frame = Math.max(shot.start, drawn.start); frame < Math.min(shot.end, drawn.end); frame += step) {
    const box = boxAt(track, frame);
    if (!box) {
      current = null;
      continue;
    }
    if (!current) lines.push((current = []));
    const centre = geometry.axis === "x" ? box.x + box.width / 2 : box.y + box.height / 2;
    const { x, y } = toPoint(geometry, centre, frame);
    current.push(x, y);
  }
  return lines.filter((line) => line.length >= 4);
}

/** Thin lines for all tracks, heavier where they are followed. */
export function LaneTracks({
  shot,
  geometry,
  drawn,
}: {
  shot: DeskShot;
  geometry: LaneGeometry;
  drawn: { start: number; end: number };
}) {
  return (
    <Group listening={false}>
      {shot.cast.map((member) => {
        const colour = subjectColour(member.colour);
        const spans = shot.framed?.spans.filter(({ trackIds }) => trackIds.includes(member.track.id)) ?? [];
        const followed = spans.flatMap(({ start, end }) =>
          seenLines(member, shot, geometry, { start: Math.max(start, drawn.start), end: Math.min(end, drawn.end) }),
        );
        return (
          <Group key={member.track.id}>
            {seenLines(member, shot, geometry, drawn).map((points, k) => (
              <Group key={k} opacity={spans.length > 0 ? 1 : 0.65}>
                <Line points={points} stroke={colour} strokeWidth={1.5} lineJoin="round" />
                <Text
                  x={points[0]! + 5}
                  y={points[1]! + 4}
                  text={member.letter}
                  fontSize={13}
                  fontStyle="bold"
                  fontFamily="Inter Variable, sans-serif"
                  fill={colour}
                />
              </Group>
            ))}
            {followed.map((points, k) => (
              <Line key={k} points={points} stroke={colour} strokeWidth={3.5} lineJoin="round" />
            ))}
          </Group>
        );
      })}
    </Group>
  );
}
