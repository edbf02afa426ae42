import { boxAt } from "~/core/subjects/tracking/track";
import { useDesk } from "../../hooks/use-desk";
import { type DeskShot, isFollowedAt, shotAt, subjectColour } from "../../model/desk-types";
import { useFrame } from "../../hooks/use-player";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.pictureSubjects;

/** Height of letters, as a share of the picture's height. */
const LETTER_SHARE = 1 / 26;

/** Everything that can be followed at this frame, with letter and box; a click follows it. */
export function PictureSubjects() {
  const { film, player, shots, shotCommands } = useDesk("film", "player", "shots", "shotCommands");
  const frame = useFrame(player);
  const shot = shotAt(shots, frame);
  const size = film.picture.height * LETTER_SHARE;
  const follow = (shot: DeskShot, trackId: string) => shotCommands.follow([shot], { kind: "track", trackId });
  return shot?.cast.map(({ letter, name, colour, track }) => {
    const box = boxAt(track, frame);
    if (!box) return null;
    const followed = isFollowedAt(shot, track.id, frame);
    const text = name ? `${letter} ${name}` : letter;
    // The label stays in the picture when the box touches its top.
    const top = Math.max(0, box.y - size * 1.2);
    return (
      <g
        key={track.id}
        role="button"
        tabIndex={0}
        aria-label={t.follow(name ?? letter)}
        className="cursor-pointer"
        onClick={() => follow(shot, track.id)}
        onKeyDown={(event) => event.key === "Enter" && follow(shot, track.id)}
      >
        <rect
          {...box}
          fill="transparent"
          stroke={subjectColour(colour)}
          strokeWidth={followed ? 3 : 1.5}
          strokeDasharray={followed ? undefined : "5 4"}
          className="[vector-effect:non-scaling-stroke]"
        />
        <rect
          x={box.x}
          y={top}
          width={size * (0.5 + 0.6 * text.length)}
          height={size * 1.2}
          fill={subjectColour(colour)}
        />
        <text x={box.x + size * 0.3} y={top + size * 0.95} fontSize={size} fontWeight={700} fill="#111">
          {text}
        </text>
      </g>
    );
  });
}
