import { useEffect } from "react";
import { useFetcher } from "react-router";
import type { FilmView, Spaces } from "./library-view";

const NOTHING: Spaces = {};

/** Disk usage by film; loaded again when a film was added, removed, or changed in size. */
export function useSpaces(films: readonly FilmView[]): { spaces: Spaces; free: number | null } {
  const { data, load } = useFetcher<{ films: Spaces; free: number }>();
  const made = films
    .map(({ id, jobs, deletedAt }) => `${id}:${deletedAt === null}:${jobs.map(({ state }) => state).join()}`)
    .join(" ");
  useEffect(() => void load("/space"), [load, made]);
  return { spaces: data?.films ?? NOTHING, free: data?.free ?? null };
}
