import type { Box, Size } from "~/core/geometry/box";
import { thingOfTrack } from "~/core/subjects/marks/marked-things";
import { boxAt, laidOver } from "~/core/subjects/tracking/track";
import { wholePixels } from "../../model/windows";
import { useDesk } from "../../hooks/use-desk";
import { shotAt } from "../../model/desk-types";
import { BoxHandles } from "./box-handles";
import { useFrame, useShotHere } from "../../hooks/use-player";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.keptParts;

/** The letterbox in the shot on screen, which no window shows; the picture area can be resized. */
export function Bars() {
  const { film, player, shots, shotCommands } = useDesk("film", "player", "shots", "shotCommands");
  const { picture } = film;
  const shot = useShotHere(player, shots);
  if (!shot?.active) return null;
  return (
    <>
      <Shaded around={shot.active} picture={picture} />
      <BoxHandles
        box={shot.active}
        name="Picture without bars"
        picture={picture}
        className="stroke-white/70"
        dashes="1 3"
        onStart={() => player?.pause()}
        onChange={(box) => shotCommands.change([shot], { active: wholePixels(box) })}
      />
    </>
  );
}

const Shaded = ({ around: { x, y, width, height }, picture }: { around: Box; picture: Size }) => (
  <path
    pointerEvents="none"
    aria-label={t.letterbox}
    fillRule="evenodd"
    d={`M0 0H${picture.width}V${picture.height}H0ZM${x} ${y}h${width}v${height}h${-width}Z`}
    className="fill-white/15"
  />
);

/** The protected area of the shot on screen. */
export function ProtectedPart() {
  const { film, player, shots, shotCommands } = useDesk("film", "player", "shots", "shotCommands");
  const shot = useShotHere(player, shots);
  if (!shot?.protect) return null;
  return (
    <BoxHandles
      box={shot.protect}
      name="Protected area"
      picture={film.picture}
      className="stroke-white"
      dashes="3 4"
      onStart={() => player?.pause()}
      onChange={(box) => shotCommands.protect(shot, box)}
    />
  );
}

/** The mark that the shot follows, at the frame on screen; moving it corrects the track from there on. */
export function MarkHere() {
  const { film, player, shots, subjectCommands } = useDesk("film", "player", "shots", "subjectCommands");
  const frame = useFrame(player);
  const shot = shotAt(shots, frame);
  const trackId = shot?.framed?.subjectId;
  if (!shot || !trackId || thingOfTrack(trackId) === null) return null;
  const track = shot.tracks.find(({ id }) => id === trackId);
  const placed = shot.marks.find((mark) => mark.frame === frame && mark.thing === thingOfTrack(trackId));
  const box = placed?.box ?? (track && boxAt(track, frame));
  if (!box) return null;
  return (
    <BoxHandles
      box={box}
      name={placed ? "Mark" : "Followed here; move it to correct its track"}
      picture={film.picture}
      className="stroke-accent"
      dashes={placed ? "none" : "6 3"}
      onStart={() => player?.pause()}
      onChange={(to) => subjectCommands.mark(frame, to)}
    />
  );
}

/** Burnt-in text at the frame on screen, which the window keeps inside where it can. */
export function TextHere() {
  const { player, shots } = useDesk("player", "shots");
  const frame = useFrame(player);
  return laidOver(shotAt(shots, frame)?.tracks ?? []).map((track) => {
    const part = boxAt(track, frame);
    return (
      part && (
        <rect
          key={track.id}
          {...part}
          pointerEvents="none"
          className="fill-none stroke-white [vector-effect:non-scaling-stroke]"
          strokeWidth={1.5}
          strokeDasharray="3 4"
        />
      )
    );
  });
}
