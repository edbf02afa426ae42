import { Merge, Split, Trash2, Wrench } from "lucide-react";
import { type KeyboardEvent, useRef, useState } from "react";
import { Button, Hint, IconButton } from "~/components/common/button";
import { TimecodeField } from "~/components/common/timecode-field";
import { type CaptionFault, captionFaults, paceOf } from "~/core/captions/caption-faults";
import { type Caption, MOST_CAPTION_TEXT } from "~/core/captions/caption";
import { roomOf } from "~/core/captions/edit-captions";
import { framesPerSecond, rangeLength } from "~/core/time/rate";
import { captionsTexts } from "~/texts/captions";
import { PercentSlider } from "~/components/common/percent-slider";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.captionEditor;

/** A caption's text, times, speaker, and place in the version. */
export function CaptionEditor({ caption }: { caption: Caption }) {
  const { film, state, version, captionCommands, captionPlaces } = useDesk(
    "film",
    "state",
    "version",
    "captionCommands",
    "captionPlaces",
  );
  const { put, remove, split, merge, mend, lineLength, set } = captionCommands;
  const { captions } = state;
  const { rules, places } = version.captions;
  const text = useRef<HTMLTextAreaElement>(null);
  const room = roomOf(captions, caption, film.frames);
  const faults = captionFaults(caption, captions[captions.indexOf(caption) + 1], rules, lineLength, film.rate);
  const seconds = rangeLength(caption) / framesPerSecond(film.rate);
  const isPlaced = places[caption.id] !== undefined;
  const { [caption.id]: own, ...others } = places;
  return (
    <section aria-label={t.selectedCaption} className="flex flex-col gap-2 rounded-md border border-line p-2">
      <Words caption={caption} inputRef={text} />
      <div className="flex items-center gap-1 text-xs">
        <TimecodeField
          label={t.start}
          frame={caption.start}
          clock={film.clock}
          least={room.start}
          most={caption.end - 1}
          className="w-[5.6rem] px-1 py-1"
          onCommit={(start) => put([{ ...caption, start }], "changed")}
        />
        <TimecodeField
          label={t.end}
          frame={caption.end}
          clock={film.clock}
          least={caption.start + 1}
          most={room.end}
          className="w-[5.6rem] px-1 py-1"
          onCommit={(end) => put([{ ...caption, end }], "changed")}
        />
        <span className="ml-auto whitespace-nowrap text-soft">{t.length(seconds, paceOf(caption, film.rate))}</span>
      </div>
      <Speaker
        key={caption.speaker}
        caption={caption}
        onChange={(speaker) => put([{ ...caption, speaker }], "changed")}
      />
      {faults.length > 0 && (
        <ul className="flex flex-col gap-0.5 text-xs text-warn">
          {faults.map((fault) => (
            <li key={fault.kind}>{faultText(fault)}</li>
          ))}
        </ul>
      )}
      <PercentSlider
        label={t.place}
        value={Math.round(100 * (captionPlaces.get(caption.id) ?? 1))}
        ends={[t.top, t.foot]}
        onChange={(percent) => set({ places: { ...places, [caption.id]: percent / 100 } })}
      />
      <div className="flex items-center gap-1">
        <IconButton
          label={t.splitAtCursor}
          shortcut={t.splitKeys}
          onClick={() => split(caption, text.current?.selectionStart ?? 0)}
        >
          <Split className="size-4" aria-hidden />
        </IconButton>
        <IconButton label={t.mergeWithNext} disabled={!merge} onClick={() => merge?.(caption)}>
          <Merge className="size-4" aria-hidden />
        </IconButton>
        {faults.length > 0 && (
          <Button className="!px-2 !py-1 text-xs" onClick={() => mend([caption])}>
            <Wrench className="size-3.5" aria-hidden /> {t.fix}
          </Button>
        )}
        {isPlaced && (
          <Hint text={t.placeAgain}>
            <Button className="!px-2 !py-1 text-xs" onClick={() => set({ places: others })}>
              {t.auto}
            </Button>
          </Hint>
        )}
        <IconButton label={t.delete} className="ml-auto" onClick={() => remove([caption.id])}>
          <Trash2 className="size-4" aria-hidden />
        </IconButton>
      </div>
      <LiveHint />
    </section>
  );
}

/** How to set ends during playback. */
function LiveHint() {
  const keysOf = useShortcutText();
  return <p className="text-xs text-soft">{t.live(keysOf("caption-in"), keysOf("caption-out"))}</p>;
}

const faultText = ({ kind, value, limit }: CaptionFault): string => t.faults[kind](value, limit);

interface WordsProps {
  caption: Caption;
  inputRef: React.RefObject<HTMLTextAreaElement | null>;
}

/** The caption's text: previewed as it is typed, and stored when the field is left or the next caption is selected. */
function Words({ caption, inputRef }: WordsProps) {
  const { state, player, captionCommands } = useDesk("state", "player", "captionCommands");
  const { put, preview, split, select } = captionCommands;
  const [typed, setTyped] = useState<{ text: string; before: string } | null>(null);
  const commit = (): Caption => {
    if (!typed) return caption;
    setTyped(null);
    const next = { ...caption, text: typed.text };
    if (typed.text !== typed.before) put([next], "changed");
    else preview(null);
    return next;
  };
  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    // The desk's shortcuts type characters here.
    if (event.key === "Escape") {
      setTyped(null);
      preview(null);
      event.currentTarget.blur();
      return;
    }
    if (event.key !== "Enter" || event.shiftKey) return;
    event.preventDefault();
    const letter = event.currentTarget.selectionStart;
    const now = commit();
    if (event.ctrlKey || event.metaKey) return split(now, letter);
    const next = state.captions[state.captions.findIndex(({ id }) => id === caption.id) + 1];
    if (!next) return;
    select(next.id);
    if (player && !player.getPlaying()) player.seek(next.start);
  };
  return (
    <textarea
      ref={inputRef}
      aria-label={t.whatItSays}
      placeholder={t.placeholder}
      rows={2}
      autoFocus={caption.text === ""}
      maxLength={MOST_CAPTION_TEXT}
      value={typed?.text ?? caption.text}
      onChange={({ target: { value } }) => {
        setTyped({ text: value, before: typed?.before ?? caption.text });
        preview([{ ...caption, text: value }]);
      }}
      onBlur={commit}
      onKeyDown={onKeyDown}
      className="w-full resize-y rounded-md border border-line bg-raised px-2 py-1.5 text-sm"
    />
  );
}

interface SpeakerProps {
  caption: Caption;
  onChange: (speaker: string | null) => void;
}

/** The speaker: a typed name, or a known one. */
function Speaker({ caption, onChange }: SpeakerProps) {
  const { state } = useDesk("state");
  const [typed, setTyped] = useState(caption.speaker ?? "");
  const known = [...new Set(state.captions.flatMap(({ speaker }) => speaker ?? []))];
  const commit = () => {
    const speaker = typed.trim().slice(0, 60) || null;
    if (speaker !== caption.speaker) onChange(speaker);
  };
  return (
    <label className="flex items-center gap-2 text-xs text-soft">
      {t.speaker}
      <input
        list="caption-speakers"
        value={typed}
        placeholder={t.nobody}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={commit}
        onKeyDown={({ key }) => key === "Enter" && commit()}
        className="min-w-0 grow rounded-md border border-line bg-raised px-2 py-1 text-ink"
      />
      <datalist id="caption-speakers">
        {known.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </label>
  );
}
