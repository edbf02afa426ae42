import { CircleCheck, TriangleAlert } from "lucide-react";
import type { FileFigures } from "~/core/film/film-status";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.checks;

/** The checks of a finished file, and their results. */
export const CheckList = ({ checks }: Pick<FileFigures, "checks">) => (
  <ul className="flex flex-col gap-1">
    {checks.map(({ name, isGood, text }) => (
      <li key={name} className="flex items-start gap-2 text-xs">
        {isGood ? (
          <CircleCheck className="mt-px size-3.5 shrink-0 text-good" aria-label={t.good} />
        ) : (
          <TriangleAlert className="mt-px size-3.5 shrink-0 text-warn" aria-label={t.bad} />
        )}
        <span className="w-28 shrink-0 text-soft">{t[name]}</span>
        <span>{text}</span>
      </li>
    ))}
  </ul>
);
