import { subjectColour } from "../desk/model/desk-types";

/** Letter of a cast member, on their colour. */
export function Letter({ letter, colour }: { letter: string; colour: number }) {
  return (
    <span
      className="inline-flex h-4.5 min-w-4.5 shrink-0 items-center justify-center rounded-sm px-1 text-xs font-bold text-black"
      style={{ background: subjectColour(colour) }}
    >
      {letter}
    </span>
  );
}
