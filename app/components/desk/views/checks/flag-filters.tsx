import { Button } from "~/components/common/button";
import { SelectMenu } from "~/components/common/select-menu";
import { TickBox } from "~/components/common/tick-box";
import { FLAG_KINDS, type FlagKind } from "~/core/checks/flag";
import { useDesk } from "../../hooks/use-desk";
import { followedIn } from "../../model/desk-types";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.flagFilters;
const kinds = checksTexts.kinds;

const ALL = "all";

/** Filter and order of the listed flags. */
export function FlagFilters() {
  const { checks, shots } = useDesk("checks", "shots");
  const { all, rows, filter, setFilter, mark } = checks;
  const there = new Set(all.map(({ kind }) => kind));
  const subjects = new Map(
    shots.flatMap((shot) => {
      const followed = followedIn(shot);
      return followed ? [[followed.letter, followed.name ?? followed.letter] as const] : [];
    }),
  );
  const unreviewed = rows.filter(({ isReviewed }) => !isReviewed);
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2">
      <SelectMenu
        small
        label={t.order}
        placeholder={t.order}
        value={filter.order}
        items={[
          { value: "worst", text: t.worstFirst },
          { value: "time", text: t.byTime },
        ]}
        onChange={(order) => setFilter({ order: order === "time" ? "time" : "worst" })}
      />
      <SelectMenu
        small
        label={t.kind}
        placeholder={t.kind}
        value={filter.kind ?? ALL}
        items={[
          { value: ALL, text: t.allKinds },
          ...FLAG_KINDS.filter((kind) => there.has(kind)).map((kind) => ({ value: kind, text: kinds[kind] })),
        ]}
        onChange={(kind) => setFilter({ kind: kind === ALL ? null : (kind as FlagKind) })}
      />
      {subjects.size > 1 && (
        <SelectMenu
          small
          label={t.person}
          placeholder={t.person}
          value={filter.letter ?? ALL}
          items={[
            { value: ALL, text: t.anybody },
            ...[...subjects].sort().map(([letter, name]) => ({ value: letter, text: name })),
          ]}
          onChange={(letter) => setFilter({ letter: letter === ALL ? null : letter })}
        />
      )}
      <label className="flex items-center gap-1.5 text-xs">
        <TickBox checked={filter.withReviewed} onChange={(withReviewed) => setFilter({ withReviewed })} />
        {t.showReviewed}
      </label>
      {unreviewed.length > 0 && (
        <Button className="ml-auto !px-2 !py-1 text-xs" onClick={() => mark(unreviewed, true)}>
          {t.markAllReviewed(unreviewed.length)}
        </Button>
      )}
    </div>
  );
}
