import { FileButton } from "~/components/common/file-button";
import { Upload } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { z } from "zod";
import { Button } from "~/components/common/button";
import { ChoiceBar } from "~/components/common/choice-bar";
import { DialogPanel } from "~/components/common/dialog-panel";
import { NumberField } from "~/components/common/number-field";
import { SelectMenu } from "~/components/common/select-menu";
import { cutIntoCaptions } from "~/core/captions/break-text";
import { captionsOf, retimed } from "~/core/captions/caption";
import { captionsTexts } from "~/texts/captions";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.bringInCaptions;

const Cue = z.object({ start: z.number(), end: z.number(), text: z.string(), speaker: z.string().nullable() });
const Read = z.union([
  z.object({ name: z.string(), error: z.string() }),
  z.object({ name: z.string(), text: z.string() }),
  z.object({
    name: z.string(),
    cues: z.array(Cue),
    problems: z.array(z.object({ line: z.int(), text: z.string() })),
  }),
]);
type Read = z.infer<typeof Read>;

/** Frame rates at which a file may have been timed, for conversion. */
const RATES = [24000 / 1001, 24, 25, 30000 / 1001, 30, 50, 60000 / 1001, 60];
const AS_IT_IS = "as it is";

/** Captions from a file, or a text that is timed by the voice. */
export function BringInCaptions({ onClose }: { onClose: () => void }) {
  const { film, state, captionCommands } = useDesk("film", "state", "captionCommands");
  const [read, setRead] = useState<Read | null>(null);
  const [isReading, setIsReading] = useState(false);
  const [pasted, setPasted] = useState("");
  const [isInstead, setIsInstead] = useState(state.captions.length > 0);
  const send = async (file: File) => {
    setIsReading(true);
    const form = new FormData();
    form.set("file", file);
    const answer = await fetch(`/films/${film.id}/captions/file`, { method: "POST", body: form })
      .then(async (response) =>
        response.ok ? Read.parse(await response.json()) : { name: file.name, error: t.failed },
      )
      .catch(() => ({ name: file.name, error: t.failed }));
    setIsReading(false);
    if ("text" in answer) setPasted(answer.text);
    setRead(answer);
  };
  const done = () => {
    setRead(null);
    onClose();
  };
  return (
    <Dialog.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <DialogPanel title={t.title} width="w-[36rem]" layout="flex flex-col gap-4">
        {state.captions.length > 0 && (
          <ChoiceBar
            label={t.existing}
            choices={[
              { value: "instead", name: t.instead, hint: t.insteadHint },
              { value: "beside", name: t.beside, hint: t.besideHint },
            ]}
            value={isInstead ? "instead" : "beside"}
            onChange={(value) => setIsInstead(value === "instead")}
            className="grid-cols-2"
          />
        )}
        <section aria-label={t.fromFile} className="flex flex-col gap-2">
          <p className="text-sm text-soft">{t.formats}</p>
          <FileButton
            className="self-start"
            label={t.file}
            accept=".srt,.vtt,.txt"
            disabled={isReading}
            onFiles={([file]) => void send(file!)}
          >
            <Upload className="size-4" aria-hidden /> {isReading ? t.reading : t.selectFile}
          </FileButton>
          {read && "error" in read && (
            <p role="alert" className="text-sm text-warn">
              {read.error}
            </p>
          )}
          {read && "cues" in read && (
            <FileRead
              key={read.name}
              read={read}
              onUse={(captions) => {
                captionCommands.bringIn(captions, isInstead);
                done();
              }}
            />
          )}
        </section>
        <section aria-label={t.fromText} className="flex flex-col gap-2 border-t border-line pt-4">
          <label className="flex flex-col gap-1 text-sm">
            {t.pasteText}
            <textarea
              rows={6}
              value={pasted}
              onChange={({ target }) => setPasted(target.value)}
              className="w-full resize-y rounded-md border border-line bg-raised px-2 py-1.5 text-sm"
            />
          </label>
          <p className="text-xs text-soft">{t.pasteHint}</p>
          <Button
            variant="accent"
            className="self-end"
            disabled={pasted.trim() === ""}
            onClick={() => {
              const { lines } = captionCommands.rules;
              captionCommands.timeTexts(cutIntoCaptions(pasted, captionCommands.lineLength, lines), isInstead);
              done();
            }}
          >
            {t.timeByVoice}
          </Button>
        </section>
      </DialogPanel>
    </Dialog.Root>
  );
}

interface FileReadProps {
  read: Extract<Read, { cues: unknown }>;
  onUse: (captions: ReturnType<typeof captionsOf>) => void;
}

/** The content of a caption file, its problems, and how its times are mapped onto the film's. */
function FileRead({ read: { name, cues, problems }, onUse }: FileReadProps) {
  const { film } = useDesk("film");
  const [offset, setOffset] = useState(0);
  const [timedAt, setTimedAt] = useState(AS_IT_IS);
  const moved = timedAt === AS_IT_IS ? cues : retimed(cues, Number(timedAt), film.rate);
  const captions = captionsOf(moved, film.rate, film.frames, offset);
  return (
    <div className="flex flex-col gap-3 rounded-md border border-line bg-raised p-3 text-sm">
      <p className="font-medium">{t.found(name, cues.length)}</p>
      {problems.length > 0 && (
        <ul aria-label={t.problems} className="flex max-h-32 flex-col gap-0.5 overflow-y-auto text-xs text-warn">
          {problems.map(({ line, text }, i) => (
            <li key={i}>{t.problem(line, text)}</li>
          ))}
        </ul>
      )}
      <div className="flex items-end gap-3">
        <NumberField
          label={t.offset}
          unit={t.seconds}
          hint={t.offsetHint}
          value={offset}
          digits={2}
          step={0.1}
          rest={0}
          canBeNegative
          onCommit={setOffset}
        />
        <SelectMenu
          label={t.timedAt}
          placeholder={t.asItIs}
          items={[
            { value: AS_IT_IS, text: t.asItIs, hint: t.asItIsHint },
            ...RATES.map((rate) => ({ value: String(rate), text: t.rate(rate) })),
          ]}
          value={timedAt}
          onChange={setTimedAt}
        />
      </div>
      {captions.length < cues.length && <p className="text-xs text-warn">{t.beyond(cues.length - captions.length)}</p>}
      <Button variant="accent" className="self-end" disabled={captions.length === 0} onClick={() => onUse(captions)}>
        {t.use(captions.length)}
      </Button>
    </div>
  );
}
