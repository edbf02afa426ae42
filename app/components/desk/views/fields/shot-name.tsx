import { useState } from "react";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.shotName;

interface ShotNameProps {
  number: number;
  name: string | null;
  onRename: (name: string | null) => void;
}

/** A shot's number, and a name that can be typed beside it; it takes effect on Enter or when the field is left. */
export function ShotName({ number, name, onRename }: ShotNameProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    const next = typed?.trim() || null;
    if (typed !== null && next !== name) onRename(next);
    setTyped(null);
  };
  return (
    <div className="flex items-baseline gap-2">
      <h2 className="font-display font-semibold whitespace-nowrap">{t.shot(number)}</h2>
      <input
        aria-label={t.nameOfTheShot}
        placeholder={t.noName}
        maxLength={80}
        value={typed ?? name ?? ""}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") setTyped(null);
        }}
        className="min-w-0 grow rounded-sm border border-transparent bg-transparent px-1 text-sm hover:border-line focus:border-line focus:bg-raised"
      />
    </div>
  );
}
