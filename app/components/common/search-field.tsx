import { clsx } from "clsx";
import { Search } from "lucide-react";
import { commonTexts } from "~/texts/common";

const t = commonTexts.searchField;

interface SearchFieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** Width, as a class. */
  className?: string;
}

/** A field for search terms. */
export function SearchField({ label, value, onChange, className }: SearchFieldProps) {
  return (
    <label className="flex items-center gap-2 rounded-md border border-line bg-raised px-2 py-1 focus-within:border-soft">
      <Search className="size-4 text-soft" aria-hidden />
      <input
        type="search"
        aria-label={label}
        placeholder={t.search}
        value={value}
        onChange={({ target }) => onChange(target.value)}
        className={clsx("bg-transparent text-sm outline-none", className)}
      />
    </label>
  );
}
