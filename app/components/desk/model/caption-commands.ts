import { nanoid } from "nanoid";
import type { Caption, CaptionText } from "~/core/captions/caption";
import { mendCaption } from "~/core/captions/caption-faults";
import { lineLengthIn } from "~/core/captions/caption-layers";
import type { CaptionRules, CaptionSettings } from "~/core/captions/caption-settings";
import {
  type CaptionGrip,
  dragCaption,
  mergeCaptions,
  offCuts,
  replaceInCaptions,
  roomOf,
  shiftCaptions,
  type SnapTo,
  splitCaption,
} from "~/core/captions/edit-captions";
import { timeCaptions } from "~/core/captions/time-captions";
import { USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import type { CAPTION_CHANGES, SingleCommand } from "~/core/edits/command";
import { isSame } from "~/core/basics/structure";
import { type FrameRange, framesPerSecond, inRange } from "~/core/time/rate";
import { captionsTexts } from "~/texts/captions";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";
import { speakerIn, spokenIn, turnsIn } from "./speakers";

const t = captionsTexts.captionCommands;

type Change = (typeof CAPTION_CHANGES)[number];

/** Length of a caption added by hand, in seconds. */
const FIRST_SECONDS = 2;
/** Seconds within which an end snaps to a cut that it would flash over, and to speech or a cut nearby. */
const FLASH_SECONDS = 0.2;

/** Commands on the captions of a film, and on how a version shows them. */
export interface CaptionCommands {
  /** The selected caption; null for none. */
  selected: Caption | null;
  select: (id: string | null) => void;
  /** Characters per line of the version, and its other rules. */
  lineLength: number;
  rules: CaptionRules;
  /** Adds an empty caption at the playhead, or selects the one there. */
  add: () => void;
  put: (captions: readonly Caption[], how: Change) => void;
  /** Previews captions; null ends the preview. */
  preview: (captions: readonly Caption[] | null) => void;
  remove: (ids: readonly string[]) => void;
  /** Splits the selected caption at a character of its text. */
  split: (caption: Caption, letter: number) => void;
  /** Merges a caption with the next; null for the last. */
  merge: ((caption: Caption) => void) | null;
  shift: (captions: readonly Caption[], by: number) => void;
  replace: (wanted: string, by: string) => void;
  mend: (captions: readonly Caption[]) => void;
  /**
   * Times captions by the voice, from the start of the first one, or of the film, to the next caption that is not among
   * them.
   */
  time: (captions: readonly Caption[]) => void;
  /** Imports captions, or texts that are timed by the voice. */
  bringIn: (captions: readonly CaptionText[], instead: boolean) => void;
  timeTexts: (texts: readonly Pick<CaptionText, "text" | "speaker">[], instead: boolean) => void;
  /** Starts or ends the selected caption at the playhead; after an end, the next one is selected. */
  markIn: () => void;
  markOut: () => void;
  /** A caption during a drag, and after it. */
  dragged: (caption: Caption, grip: CaptionGrip, by: number, reach: number) => Caption;
  set: (change: Partial<CaptionSettings>) => void;
}

const change = (removed: readonly string[], put: readonly Caption[], how: Change): SingleCommand => ({
  type: "change-captions",
  removed: [...removed],
  put: [...put],
  how,
});

/** What captions of this film are timed by: its voice, its cuts, and the frames shown. */
function captionTiming({ get }: DeskPort) {
  const flash = () => Math.round(FLASH_SECONDS * framesPerSecond(get().film.rate));
  const cuts = () => get().shots.map(({ start }) => start);
  return {
    /** Times captions by the voice; one without a speaker is given to whoever is seen speaking. */
    timed<T extends Pick<CaptionText, "text" | "speaker">>(said: readonly T[], range: FrameRange) {
      const { shots, speech, film, version } = get();
      const spoken = spokenIn(shots);
      const heard = { segments: speech, turns: turnsIn(spoken) };
      const laid = timeCaptions(said, heard, range, film.rate, version.captions.rules);
      return offCuts(laid, cuts(), flash()).map((caption) => ({
        ...caption,
        speaker: caption.speaker ?? speakerIn(spoken, caption),
      }));
    },
    /** From the first frame shown to the last. */
    shown: (): FrameRange => {
      const { kept, film } = get();
      return { start: kept[0]?.start ?? 0, end: kept.at(-1)?.end ?? film.frames };
    },
    snap: (reach: number): SnapTo => ({ cuts: cuts(), speech: get().speech, reach, flash: flash() }),
  };
}

export function captionCommands(port: DeskPort) {
  const { get } = port;
  const { timed, shown, snap } = captionTiming(port);
  const select = (captionId: string | null) => port.put({ captionId });
  const captionsNow = () => get().state.captions;
  const selectedNow = () => captionsNow().find(({ id }) => id === get().captionId) ?? null;
  const send = (command: SingleCommand) => get().edits.send(command);
  const put = (next: readonly Caption[], how: Change) => send(change([], next, how));
  const here = () => get().player?.getTarget() ?? 0;
  const after = (caption: Caption): Caption | undefined => captionsNow()[captionsNow().indexOf(caption) + 1];

  const add = () => {
    const { film, shots } = get();
    const captions = captionsNow();
    const start = here();
    const there = captions.find((caption) => inRange(start, caption));
    if (there) return select(there.id);
    const next = captions.find((caption) => caption.start > start)?.start ?? film.frames;
    const end = Math.min(next, start + Math.round(FIRST_SECONDS * framesPerSecond(film.rate)));
    const speaker = speakerIn(spokenIn(shots), { start, end });
    const caption = { id: nanoid(10), start, end, text: "", speaker };
    put([caption], "added");
    select(caption.id);
  };
  const bringIn = (texts: readonly CaptionText[], instead: boolean) => {
    const gone = instead ? captionsNow().map(({ id }) => id) : [];
    const added = texts.map((caption) => ({ ...caption, id: nanoid(10) }));
    send(change(gone, added, "imported"));
    get().tell(t.broughtIn(texts.length));
  };
  const merge = (caption: Caption) => {
    const next = after(caption);
    if (next) send(change([next.id], [mergeCaptions([caption, next])], "merged"));
  };
  const lineLengthOf = ({ version }: Pick<ReturnType<DeskPort["get"]>, "version">) =>
    lineLengthIn(version.captions, version, version.safeArea ?? USUAL_SAFE_AREA);

  const commands: Omit<CaptionCommands, "selected" | "lineLength" | "rules" | "merge"> = {
    select,
    add,
    put,
    bringIn,
    remove: (ids) => send(change(ids, [], "deleted")),
    preview: (next) => get().edits.preview(next && change([], next, "changed")),
    split: (caption, letter) => {
      const halves = splitCaption(caption, letter, nanoid(10));
      if (!halves) return get().tell(t.cannotSplit, "error");
      put(halves, "split");
      select(halves[1].id);
    },
    shift: (some, by) => put(shiftCaptions(some, by, get().film.frames), "moved"),
    replace: (wanted, by) => {
      const next = replaceInCaptions(captionsNow(), wanted, by);
      if (next.length > 0) put(next, "replaced");
      get().tell(t.replaced(next.length));
    },
    mend: (some) => {
      const { film, version, tell } = get();
      const captions = captionsNow();
      const [length, { rules }] = [lineLengthOf(get()), version.captions];
      // One after the other, each beside the result for the one before.
      let all = [...captions];
      for (const caption of some) {
        const i = all.indexOf(caption);
        const mended = mendCaption(caption, all[i - 1], all[i + 1], rules, length, film.rate, () => nanoid(10));
        all = all.toSpliced(i, 1, ...mended.put);
      }
      const before = new Map(captions.map((caption) => [caption.id, caption]));
      const ids = new Set(all.map(({ id }) => id));
      const gone = captions.filter(({ id }) => !ids.has(id)).map(({ id }) => id);
      const others = all.filter((caption) => !isSame(before.get(caption.id), caption));
      if (gone.length + others.length === 0) return tell(t.noRoom);
      send(change(gone, others, "mended"));
    },
    time: (some) => {
      const [first] = some;
      if (!first) return;
      const captions = captionsNow();
      const isAll = some.length === captions.length;
      const last = captions.indexOf(some.at(-1)!);
      const range = isAll ? shown() : { start: first.start, end: captions[last + 1]?.start ?? shown().end };
      put(timed(some, range), "timed");
    },
    timeTexts: (texts, instead) => bringIn(timed(texts, shown()), instead),
    markIn: () => {
      const selected = selectedNow();
      if (!selected) return add();
      const start = Math.min(here(), get().film.frames - 1);
      put([{ ...selected, start, end: Math.max(selected.end, start + 1) }], "changed");
    },
    markOut: () => {
      const selected = selectedNow();
      if (!selected) return;
      const end = here() + 1;
      const next = after(selected);
      put([{ ...selected, start: Math.min(selected.start, end - 1), end }], "changed");
      if (next) select(next.id);
    },
    dragged: (caption, grip, by, reach) =>
      dragCaption(caption, grip, by, roomOf(captionsNow(), caption, get().film.frames), reach > 0 ? snap(reach) : null),
    set: (changed) => {
      const { version, versionCommands } = get();
      versionCommands.change(version.id, { captions: { ...version.captions, ...changed } });
    },
  };
  return deskSelector(
    [(desk) => desk.state.captions, (desk) => desk.captionId, (desk) => desk.version],
    (captions, captionId, version): CaptionCommands => {
      const at = captions.findIndex(({ id }) => id === captionId);
      return {
        ...commands,
        selected: captions[at] ?? null,
        lineLength: lineLengthOf({ version }),
        rules: version.captions.rules,
        merge: at >= 0 && at < captions.length - 1 ? merge : null,
      };
    },
  );
}
