/**
 * Reads stored edits. Older versions of Glad Pan wrote subjects as text, and had commands of their own for putting keys and
 * shots back; these are read as today's.
 */
import { z } from "zod";
import { Id } from "../basics/ids";
import { HandKey } from "../path/hand-key";
import { Shot } from "../shots/shot";
import { readRule } from "../subjects/choosing/follow-rule";
import type { Restore } from "./apply";
import { Command } from "./command";
import { Difference } from "./difference";
import type { FilmState } from "../version/film-state";
import { ShotInVersion } from "../version/settle";

const Restoring = z.object({ type: z.literal("restore"), difference: Difference });

const OlderRestoreKeys = z.object({
  type: z.literal("restore-keys"),
  versionId: Id,
  frames: z.array(z.number()),
  keys: z.array(HandKey),
});

const OlderRestoreShots = z.object({
  type: z.literal("restore-shots"),
  remove: z.array(z.string()),
  shots: z.array(Shot),
  framings: z.array(z.object({ versionId: Id, shotId: z.string(), settings: ShotInVersion })),
  sensitivity: z.int().optional(),
});
type OlderRestoreShots = z.infer<typeof OlderRestoreShots>;

const StoredEdit = z.union([Command, Restoring, OlderRestoreKeys, OlderRestoreShots]);

type Json = Record<string, unknown>;
const isJson = (value: unknown): value is Json => typeof value === "object" && value !== null && !Array.isArray(value);

/** A shot, or a change of shots, with its subject written as text and newer fields left out. */
function newerShot(value: unknown, whole: boolean): unknown {
  if (!isJson(value)) return value;
  const { subject, ...rest } = value;
  const missing = whole ? { protect: null, active: null } : {};
  return { ...missing, ...rest, ...(typeof subject === "string" ? { follow: readRule(subject) } : {}) };
}

/** An older command in today's form. */
function newer(value: unknown): unknown {
  if (!isJson(value)) return value;
  if (value.type === "change-shots") return { ...value, change: newerShot(value.change, false) };
  if (value.type === "restore-shots" && Array.isArray(value.shots)) {
    return { ...value, shots: value.shots.map((shot) => newerShot(shot, true)) };
  }
  if (value.type !== "put-mark" || !isJson(value.follow)) return value;
  const { follow, ...mark } = value;
  const change = newerShot({ subject: follow.subject }, false);
  return { type: "batch", commands: [mark, { type: "change-shots", shotIds: [follow.shotId], change }] };
}

/** Shots put back as they were, with versions' settings of them, and no others. */
function shotsRestored({ remove, shots, framings, sensitivity }: OlderRestoreShots, state: FilmState): Difference {
  const said = (versionId: string, shotId: string) =>
    framings.find((framing) => framing.versionId === versionId && framing.shotId === shotId)?.settings ?? null;
  const inVersions = state.versions.flatMap(({ id: versionId }) =>
    shots.map(({ id: shotId }) => ({ versionId, shotId, says: said(versionId, shotId) })),
  );
  return { shots: { removed: remove, put: shots }, inVersions, sensitivity };
}

/**
 * Reads a stored command, or its inverse.
 * @param state the film as it is now
 * @throws ZodError for anything else
 */
export function readStoredEdit(json: string, state: FilmState): Command | Restore {
  const edit = StoredEdit.parse(newer(JSON.parse(json)));
  if (edit.type === "restore-shots") return { type: "restore", difference: shotsRestored(edit, state) };
  if (edit.type !== "restore-keys") return edit;
  const { versionId, frames, keys } = edit;
  return { type: "restore", difference: { handKeys: [{ versionId, pane: 0, removed: frames, put: keys }] } };
}
