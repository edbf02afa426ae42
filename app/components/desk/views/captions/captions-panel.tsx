import { Menu as MenuIcon, Plus, Upload } from "lucide-react";
import { useState } from "react";
import { Button, IconButton } from "~/components/common/button";
import { Menu, MenuHeading, MenuItem } from "~/components/common/menu";
import { captionFaults } from "~/core/captions/caption-faults";
import { captionsTexts } from "~/texts/captions";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { useDesk } from "../../hooks/use-desk";
import { BringInCaptions } from "./bring-in-captions";
import { CaptionEditor } from "./caption-editor";
import { CaptionList } from "./caption-list";
import { CaptionsLook } from "./captions-look";
import { CaptionsOut } from "./captions-out";
import { CaptionsRules } from "./captions-rules";
import { ReplaceInCaptions } from "./replace-in-captions";
import { ShiftCaptions } from "./shift-captions";

const t = captionsTexts.captionsPanel;

/** The dialog that is open beside the list. */
type Open = "bring-in" | "replace" | "shift" | null;

/** The film's captions: imported, typed, timed, and how the version shows them. */
export function CaptionsPanel() {
  const { film, state, version, captionCommands } = useDesk("film", "state", "version", "captionCommands");
  const keysOf = useShortcutText();
  const [open, setOpen] = useState<Open>(null);
  const { captions } = state;
  const { selected, lineLength } = captionCommands;
  const faulty = captions.filter(
    (caption, i) => captionFaults(caption, captions[i + 1], version.captions.rules, lineLength, film.rate).length > 0,
  );
  const fromHere = selected ? captions.slice(captions.indexOf(selected)) : captions;
  return (
    <section aria-label={t.captions} className="flex flex-col gap-4">
      <div className="flex items-center gap-2">
        <Button className="grow" onClick={() => setOpen("bring-in")}>
          <Upload className="size-3.5" aria-hidden /> {t.importOrPaste}
        </Button>
        <IconButton label={t.add} shortcut={keysOf("caption-add")} onClick={captionCommands.add}>
          <Plus className="size-4" aria-hidden />
        </IconButton>
        {captions.length > 0 && (
          <Menu
            align="end"
            trigger={
              <IconButton label={t.more}>
                <MenuIcon className="size-4" aria-hidden />
              </IconButton>
            }
          >
            <MenuHeading>{t.timeByVoice}</MenuHeading>
            <MenuItem onSelect={() => captionCommands.time(captions)}>{t.all}</MenuItem>
            <MenuItem disabled={!selected} onSelect={() => captionCommands.time(fromHere)}>
              {t.fromSelected}
            </MenuItem>
            <MenuItem disabled={!selected} onSelect={() => selected && captionCommands.time([selected])}>
              {t.selectedOnly}
            </MenuItem>
            <MenuHeading>{t.change}</MenuHeading>
            <MenuItem onSelect={() => setOpen("replace")}>{t.findAndReplace}</MenuItem>
            <MenuItem onSelect={() => setOpen("shift")}>{t.shift}</MenuItem>
            <MenuItem disabled={faulty.length === 0} onSelect={() => captionCommands.mend(faulty)}>
              {t.fixAll(faulty.length)}
            </MenuItem>
            <MenuItem onSelect={() => captionCommands.remove(captions.map(({ id }) => id))}>{t.deleteAll}</MenuItem>
            <MenuHeading>{t.save}</MenuHeading>
            {(["srt", "vtt"] as const).map((format) => (
              <MenuItem key={format} asChild>
                <a href={`/films/${film.id}/captions/${format}?version=${version.id}`} download>
                  {t.saveAs[format]}
                </a>
              </MenuItem>
            ))}
          </Menu>
        )}
      </div>
      {open === "bring-in" && <BringInCaptions onClose={() => setOpen(null)} />}
      {open === "replace" && <ReplaceInCaptions onClose={() => setOpen(null)} />}
      {open === "shift" && <ShiftCaptions captions={captions} fromHere={fromHere} onClose={() => setOpen(null)} />}
      {captions.length === 0 ? (
        <p className="text-xs text-soft">{t.empty(keysOf("caption-add"))}</p>
      ) : (
        <>
          <CaptionList faulty={faulty} />
          {selected && <CaptionEditor key={selected.id} caption={selected} />}
        </>
      )}
      <CaptionsOut />
      <CaptionsLook />
      <CaptionsRules />
    </section>
  );
}
