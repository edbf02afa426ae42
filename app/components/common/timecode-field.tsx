import { clsx } from "clsx";
import { type FormEvent, type Ref, useState } from "react";
import { type Clock, frameAt, timecodeAt } from "~/core/time/timecode";

interface TimecodeFieldProps {
  label: string;
  title?: string;
  frame: number;
  clock: Clock;
  /** Range of frames that can be entered. */
  least?: number;
  most: number;
  inputRef?: Ref<HTMLInputElement>;
  className?: string;
  onCommit: (frame: number) => void;
}

/** A frame as timecode; a timecode or a frame number can be typed and takes effect on Enter. */
export function TimecodeField(props: TimecodeFieldProps) {
  const { label, title, frame, clock, least = 0, most, inputRef, className, onCommit } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const wanted = typed === null ? frame : frameAt(typed, clock);
  const isValid = wanted !== null && wanted >= least && wanted <= most;
  const commit = (event: FormEvent) => {
    event.preventDefault();
    if (!isValid) return;
    onCommit(wanted);
    setTyped(null);
  };
  return (
    <form onSubmit={commit} className="contents">
      <input
        ref={inputRef}
        aria-label={label}
        aria-invalid={!isValid}
        title={title}
        value={typed ?? timecodeAt(frame, clock)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => setTyped(null)}
        onKeyDown={(event) => event.key === "Escape" && event.currentTarget.blur()}
        className={clsx(
          "rounded-md border border-line bg-raised text-left font-mono aria-invalid:border-warn aria-invalid:text-warn",
          className,
        )}
      />
    </form>
  );
}
