import { clsx } from "clsx";
import { LayoutGrid, List } from "lucide-react";
import { ToggleGroup } from "radix-ui";
import { Hint } from "~/components/common/button";
import { SearchField } from "~/components/common/search-field";
import { SelectMenu } from "~/components/common/select-menu";
import { type Order, ORDERS, type Section, SECTIONS } from "./library-view";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.libraryTools;

export const LAYOUTS = {
  cards: { name: t.asCards, Icon: LayoutGrid },
  list: { name: t.asAList, Icon: List },
} as const;
export type Layout = keyof typeof LAYOUTS;

interface LibraryToolsProps {
  section: Section;
  counts: Record<Section, number>;
  search: string;
  order: Order;
  layout: Layout;
  onSection: (section: Section) => void;
  onSearch: (search: string) => void;
  onOrder: (order: Order) => void;
  onLayout: (layout: Layout) => void;
}

/** Section, search, order and view of the library. */
export function LibraryTools(props: LibraryToolsProps) {
  const { section, counts, search, order, layout, onSection, onSearch, onOrder, onLayout } = props;
  const sections = (Object.keys(SECTIONS) as Section[]).filter((name) => name === "work" || counts[name] > 0);
  return (
    <div className="flex flex-wrap items-center gap-3">
      {sections.length > 1 && (
        <nav aria-label={t.sections} className="flex gap-1">
          {sections.map((name) => (
            <button
              key={name}
              type="button"
              aria-current={name === section}
              onClick={() => onSection(name)}
              className={clsx(
                "rounded-md px-2.5 py-1.5 text-sm",
                name === section ? "bg-well font-semibold" : "text-soft hover:bg-well hover:text-ink",
              )}
            >
              {SECTIONS[name]} <span className="font-normal text-soft">{counts[name]}</span>
            </button>
          ))}
        </nav>
      )}
      <SearchField label={t.searchByName} value={search} onChange={onSearch} className="w-40" />
      <SelectMenu
        label={t.order}
        placeholder=""
        items={Object.entries(ORDERS).map(([value, text]) => ({ value, text }))}
        value={order}
        onChange={(value) => onOrder(value as Order)}
      />
      <ToggleGroup.Root
        type="single"
        aria-label={t.layout}
        value={layout}
        onValueChange={(value) => value && onLayout(value as Layout)}
        className="flex overflow-hidden rounded-md border border-line"
      >
        {Object.entries(LAYOUTS).map(([value, { name, Icon }]) => (
          <Hint key={value} text={name}>
            <ToggleGroup.Item
              value={value}
              aria-label={name}
              className="bg-raised px-2 py-1.5 hover:bg-well aria-checked:bg-accent-wash"
            >
              <Icon className="size-4" aria-hidden />
            </ToggleGroup.Item>
          </Hint>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}
