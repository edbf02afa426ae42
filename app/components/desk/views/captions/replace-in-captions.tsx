import { X } from "lucide-react";
import { useState } from "react";
import { Button, IconButton } from "~/components/common/button";
import { captionsWith } from "~/core/captions/edit-captions";
import { captionsTexts } from "~/texts/captions";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.replaceInCaptions;

/** Finds and replaces text in all captions. */
export function ReplaceInCaptions({ onClose }: { onClose: () => void }) {
  const { state, player, captionCommands } = useDesk("state", "player", "captionCommands");
  const [wanted, setWanted] = useState("");
  const [by, setBy] = useState("");
  const found = captionsWith(state.captions, wanted);
  const next = () => {
    const after = found.find(({ start }) => start > (captionCommands.selected?.start ?? -1)) ?? found[0];
    if (!after) return;
    captionCommands.select(after.id);
    player?.seek(after.start);
  };
  const field = "min-w-0 grow rounded-md border border-line bg-raised px-2 py-1 text-sm";
  return (
    <section aria-label={t.title} className="flex flex-col gap-2 rounded-md border border-line p-2">
      <div className="flex items-center gap-2">
        <input
          aria-label={t.find}
          placeholder={t.find}
          value={wanted}
          onChange={({ target }) => setWanted(target.value)}
          onKeyDown={({ key }) => key === "Enter" && next()}
          className={field}
        />
        <IconButton label={t.close} onClick={onClose}>
          <X className="size-4" aria-hidden />
        </IconButton>
      </div>
      <input
        aria-label={t.by}
        placeholder={t.by}
        value={by}
        onChange={({ target }) => setBy(target.value)}
        className={field}
      />
      <div className="flex items-center gap-2">
        <span role="status" className="grow text-xs text-soft">
          {wanted === "" ? "" : t.found(found.length)}
        </span>
        <Button className="!px-2 !py-1 text-xs" disabled={found.length === 0} onClick={next}>
          {t.next}
        </Button>
        <Button
          className="!px-2 !py-1 text-xs"
          disabled={found.length === 0}
          onClick={() => captionCommands.replace(wanted, by)}
        >
          {t.replaceAll}
        </Button>
      </div>
    </section>
  );
}
