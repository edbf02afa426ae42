import { Dialog } from "radix-ui";
import { useId, useState } from "react";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import type { VersionChange } from "~/core/edits/command";
import { newVersion, Version } from "~/core/version/film-state";
import type { UsualInVersion } from "~/core/version/settle";
import type { Size } from "~/core/geometry/box";
import { FRAME_SHAPES, nameOfSize } from "~/core/geometry/frame-shapes";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { AUTO } from "~/core/subjects/choosing/follow-rule";
import { CalmSlider } from "../fields/calm-slider";
import { MovementChoice } from "../fields/movement-choice";
import { AttentionFields } from "../fields/attention-fields";
import { RuleSelect } from "../fields/subject-choice";
import { LimitField } from "../fields/limit-field";
import { SizeField } from "./size-field";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.versionDialog;

/** Everything that the dialog sets of a version. */
export type VersionDraft = Required<Omit<VersionChange, "safeArea" | "checkLimits" | "reviewedFlags" | "output">>;

interface VersionDialogProps {
  /** The version being changed; null for a new one. */
  version: Version | null;
  /** Sizes of the source pictures. */
  pictures: readonly Size[];
  onDone: (draft: VersionDraft) => void;
  onClose: () => void;
}

const FIRST = FRAME_SHAPES[0]!;

/** Makes or changes a version: aspect ratio and size, name, length limit, and usual settings. */
export function VersionDialog({ version, pictures, onDone, onClose }: VersionDialogProps) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <DialogPanel title={version ? t.versionSettings : t.newVersion} width="w-[34rem]">
        <VersionForm version={version} pictures={pictures} onDone={onDone} onClose={onClose} />
      </DialogPanel>
    </Dialog.Root>
  );
}

function VersionForm({ version, pictures, onDone, onClose }: VersionDialogProps) {
  const [draft, setDraft] = useState<VersionDraft>(
    () => version ?? newVersion({ id: "new", name: FIRST.name, ...FIRST.sizes[0]! }),
  );
  const set = (change: Partial<VersionDraft>) => setDraft({ ...draft, ...change });
  const resize = (size: Size) => {
    // A version without a name of its own is named after its aspect ratio.
    const isUnnamed = draft.name === nameOfSize(draft);
    set({ ...size, ...(isUnnamed ? { name: nameOfSize(size) } : {}) });
  };
  const { width, height, name, limitSeconds, usual, captions } = draft;
  const checked = Version.omit({ id: true }).safeParse(draft);
  const problem = checked.error?.issues[0];
  return (
    <form
      className="flex flex-col gap-5"
      onSubmit={(event) => {
        event.preventDefault();
        if (!checked.success) return;
        onDone({ width, height, name: checked.data.name, limitSeconds, usual, captions });
        onClose();
      }}
    >
      <SizeField size={draft} pictures={pictures} onChange={resize} />
      <NameField name={name} onChange={(next) => set({ name: next })} />
      <LimitField limitSeconds={limitSeconds} onChange={(limit) => set({ limitSeconds: limit })} />
      <UsualFields usual={usual} onChange={(change) => set({ usual: { ...usual, ...change } })} />
      {problem && (
        <p role="alert" className="text-sm text-warn">
          {FIELD_NAMES[String(problem.path[0])] ?? t.this}: {problem.message}.
        </p>
      )}
      <div className="flex justify-end gap-2 border-t border-line pt-4">
        <Button onClick={onClose}>{t.cancel}</Button>
        <Button type="submit" variant="accent" disabled={!checked.success}>
          {version ? t.save : t.addVersion}
        </Button>
      </div>
    </form>
  );
}

const FIELD_NAMES: Record<string, string> = { width: t.width, height: t.height, name: t.name };

function NameField({ name, onChange }: { name: string; onChange: (name: string) => void }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-xs text-soft">
        {t.name}
      </label>
      <input
        id={id}
        value={name}
        maxLength={80}
        onChange={(event) => onChange(event.target.value)}
        className="w-full rounded-md border border-line bg-raised px-2 py-1 text-sm"
      />
    </div>
  );
}

/** Settings for shots that have none of their own. */
function UsualFields({ usual, onChange }: { usual: UsualInVersion; onChange: (change: UsualInVersion) => void }) {
  const { movement = USUAL_FRAMING.movement, calm = USUAL_FRAMING.calm, follow = AUTO } = usual;
  return (
    <section aria-label={t.defaultsOfThisVersion} className="flex flex-col gap-2">
      <h3 className="text-sm font-medium">{t.defaultsForAllShots}</h3>
      <MovementChoice movement={movement} onChange={(value) => onChange({ movement: value })} />
      <CalmSlider label={t.defaultCalmness} calm={calm} onChange={(value) => onChange({ calm: value })} />
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.follow}</span>
        <RuleSelect rule={follow} onChange={(rule) => onChange({ follow: rule })} />
      </div>
      <AttentionFields settings={{ ...USUAL_ATTENTION, ...usual }} onChange={onChange} />
    </section>
  );
}
