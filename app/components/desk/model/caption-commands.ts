import { nanoid } from "nanoid";
import { useState } from "react";
import { toast } from "sonner";
import { type Caption, type CaptionText } from "~/core/captions/caption";
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
import type { FilmState, VersionState } from "~/core/version/film-state";
import { isSame } from "~/core/structure";
import { type FrameRange, framesPerSecond, inRange } from "~/core/time/rate";
import { captionsTexts } from "~/texts/captions";
import type { Player } from "./player";
import type { DeskFilm, DeskShot } from "./desk-types";
import type { Edits } from "../hooks/use-edits";
import { speakerIn, spokenIn, turnsIn } from "./speakers";

const t = captionsTexts.useCaptionEdits;

type Change = (typeof CAPTION_CHANGES)[number];

/** How long a caption is that is added by hand, in seconds. */
const FIRST_SECONDS = 2;
/** An end comes to rest within so many seconds of a cut that it would flash over, and of speech or a cut nearby. */
const FLASH_SECONDS = 0.2;

/** What can be done to the captions of a film, and to how a version shows them. */
export interface CaptionEdits {
  /** The caption that is chosen; null for none. */
  chosen: Caption | null;
  choose: (id: string | null) => void;
  /** Letters of a line of the version, and its other rules. */
  lineLength: number;
  rules: CaptionRules;
  /** Adds an empty one at the playhead, or chooses the one that is there. */
  add: () => void;
  put: (captions: readonly Caption[], how: Change) => void;
  /** Shows what captions would be; null for as they are. */
  preview: (captions: readonly Caption[] | null) => void;
  remove: (ids: readonly string[]) => void;
  /** Splits the chosen one at a letter of its text. */
  split: (caption: Caption, letter: number) => void;
  /** Merges one with the one after it; null for the last. */
  merge: ((caption: Caption) => void) | null;
  shift: (captions: readonly Caption[], by: number) => void;
  replace: (wanted: string, by: string) => void;
  mend: (captions: readonly Caption[]) => void;
  /** Lays captions along the voice, from the first one's start, or the film's, to the next one that is not among them. */
  time: (captions: readonly Caption[]) => void;
  /** Brings in captions, or texts that are laid along the voice. */
  bringIn: (captions: readonly CaptionText[], instead: boolean) => void;
  timeTexts: (texts: readonly Pick<CaptionText, "text" | "speaker">[], instead: boolean) => void;
  /** The chosen one begins or ends at the playhead; the next is chosen when it ends. */
  markIn: () => void;
  markOut: () => void;
  /** A caption while it is dragged, and when it is let go. */
  dragged: (caption: Caption, grip: CaptionGrip, by: number, reach: number) => Caption;
  set: (change: Partial<CaptionSettings>) => void;
}

interface CaptionsOf {
  film: DeskFilm;
  state: FilmState;
  version: VersionState;
  shots: readonly DeskShot[];
  kept: readonly FrameRange[];
  speech: readonly FrameRange[];
  player: Player | null;
  edits: Edits;
}

export function useCaptionEdits({
  film,
  state,
  version,
  shots,
  kept,
  speech,
  player,
  edits,
}: CaptionsOf): CaptionEdits {
  const [chosenId, choose] = useState<string | null>(null);
  const { captions } = state;
  const { captions: settings, safeArea } = version;
  const fps = framesPerSecond(film.rate);
  const flash = Math.round(FLASH_SECONDS * fps);
  const chosen = captions.find(({ id }) => id === chosenId) ?? null;
  const lineLength = lineLengthIn(settings, version, safeArea ?? USUAL_SAFE_AREA);
  const change = (removed: readonly string[], put: readonly Caption[], how: Change): SingleCommand => ({
    ...{ type: "change-captions", removed: [...removed], put: [...put], how },
  });
  const put = (next: readonly Caption[], how: Change) => edits.send(change([], next, how));
  const remove = (ids: readonly string[]) => edits.send(change(ids, [], "deleted"));
  const here = () => player?.getTarget() ?? 0;
  const after = (caption: Caption): Caption | undefined => captions[captions.indexOf(caption) + 1];

  const add = () => {
    const start = here();
    const there = captions.find((caption) => inRange(start, caption));
    if (there) return choose(there.id);
    const next = captions.find((caption) => caption.start > start)?.start ?? film.frames;
    const end = Math.min(next, start + Math.round(FIRST_SECONDS * fps));
    const speaker = speakerIn(spokenIn(shots), { start, end });
    const caption = { id: nanoid(10), start, end, text: "", speaker };
    put([caption], "added");
    choose(caption.id);
  };
  /** Captions along the voice, each said by whoever is seen to speak then if nobody is named. */
  const timed = <T extends Pick<CaptionText, "text" | "speaker">>(said: readonly T[], range: FrameRange) => {
    const spoken = spokenIn(shots);
    const heard = { segments: speech, turns: turnsIn(spoken) };
    const cuts = shots.map(({ start }) => start);
    const laid = timeCaptions(said, heard, range, film.rate, settings.rules);
    return offCuts(laid, cuts, flash).map((caption) => ({
      ...caption,
      speaker: caption.speaker ?? speakerIn(spoken, caption),
    }));
  };
  const bringIn = (texts: readonly CaptionText[], instead: boolean) => {
    const gone = instead ? captions.map(({ id }) => id) : [];
    edits.send(
      change(
        gone,
        texts.map((caption) => ({ ...caption, id: nanoid(10) })),
        "imported",
      ),
    );
    toast(t.broughtIn(texts.length));
  };
  const shown = { start: kept[0]?.start ?? 0, end: kept.at(-1)?.end ?? film.frames };

  return {
    ...{ chosen, choose, lineLength, rules: settings.rules, add, put, remove, bringIn },
    preview: (next) => edits.preview(next && change([], next, "changed")),
    split: (caption, letter) => {
      const halves = splitCaption(caption, letter, nanoid(10));
      if (!halves) return void toast.error(t.cannotSplit);
      put(halves, "split");
      choose(halves[1].id);
    },
    merge:
      chosen && after(chosen)
        ? (caption) => {
            const next = after(caption);
            if (next) edits.send(change([next.id], [mergeCaptions([caption, next])], "merged"));
          }
        : null,
    shift: (some, by) => put(shiftCaptions(some, by, film.frames), "moved"),
    replace: (wanted, by) => {
      const next = replaceInCaptions(captions, wanted, by);
      if (next.length > 0) put(next, "replaced");
      toast(t.replaced(next.length));
    },
    mend: (some) => {
      // One after the other, each beside what the one before it has become.
      let all = [...captions];
      for (const caption of some) {
        const i = all.indexOf(caption);
        const mended = mendCaption(caption, all[i - 1], all[i + 1], settings.rules, lineLength, film.rate, () =>
          nanoid(10),
        );
        all = all.toSpliced(i, 1, ...mended.put);
      }
      const before = new Map(captions.map((caption) => [caption.id, caption]));
      const ids = new Set(all.map(({ id }) => id));
      const gone = captions.filter(({ id }) => !ids.has(id)).map(({ id }) => id);
      const others = all.filter((caption) => !isSame(before.get(caption.id), caption));
      if (gone.length + others.length === 0) return void toast(t.noRoom);
      edits.send(change(gone, others, "mended"));
    },
    time: (some) => {
      const [first] = some;
      if (!first) return;
      const isAll = some.length === captions.length;
      const last = captions.indexOf(some.at(-1)!);
      const range = isAll ? shown : { start: first.start, end: captions[last + 1]?.start ?? shown.end };
      put(timed(some, range), "timed");
    },
    timeTexts: (texts, instead) => bringIn(timed(texts, shown), instead),
    markIn: () => {
      if (!chosen) return add();
      const start = Math.min(here(), film.frames - 1);
      put([{ ...chosen, start, end: Math.max(chosen.end, start + 1) }], "changed");
    },
    markOut: () => {
      if (!chosen) return;
      const end = here() + 1;
      put([{ ...chosen, start: Math.min(chosen.start, end - 1), end }], "changed");
      const next = after(chosen);
      if (next) choose(next.id);
    },
    dragged: (caption, grip, by, reach) => {
      const cuts = shots.map(({ start }) => start);
      const snap: SnapTo = { cuts, speech, reach, flash };
      return dragCaption(caption, grip, by, roomOf(captions, caption, film.frames), reach > 0 ? snap : null);
    },
    set: (changed) =>
      edits.send({ type: "change-version", versionId: version.id, change: { captions: { ...settings, ...changed } } }),
  };
}
