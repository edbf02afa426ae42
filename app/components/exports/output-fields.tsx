import { ChoiceBar } from "~/components/common/choice-bar";
import { NumberField } from "~/components/common/number-field";
import { SelectMenu } from "~/components/common/select-menu";
import { clamped } from "~/core/numbers/clamped";
import { BIT_DEPTHS } from "~/core/image/bit-depth";
import { type FormatId, outputFormat } from "~/core/formats/output-formats";
import {
  LOUDNESS,
  outputDepth,
  type OutputSettings,
  QUALITIES,
  qualityNumber,
  RATES,
  RETIMINGS,
  type Retiming,
} from "~/core/formats/output-settings";
import { isSame } from "~/core/basics/structure";
import { formatRate, type Rate } from "~/core/time/rate";
import { PercentSlider } from "~/components/common/percent-slider";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.outputFields;

/** Formats and folders for exports of a film. */
export interface ExportPlaces {
  /** Formats for which this machine has encoders. */
  formats: readonly FormatId[];
  /** Folders that the operator allows. */
  folders: readonly { name: string; path: string }[];
  /** Whether exports can be written beside the film. */
  beside: boolean;
}

interface OutputFieldsProps {
  output: OutputSettings;
  /** Properties of the film itself. */
  film: { rate: Rate; bitDepth: number };
  places: ExportPlaces;
  onChange: (change: Partial<OutputSettings>) => void;
}

const AS_FILM = "film";
const LIBRARY = "library";
const BESIDE = "beside";
const rateKey = ({ num, den }: Rate): string => `${num}/${den}`;

/** All export settings of a version. */
export function OutputFields({ output, film, places, onChange }: OutputFieldsProps) {
  const format = outputFormat(output.format);
  const depth = outputDepth(output, film.bitDepth);
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <SelectMenu
          label={t.format}
          placeholder={t.format}
          value={output.format}
          items={places.formats.map((id) => ({ value: id, text: outputFormat(id).name, hint: outputFormat(id).use }))}
          onChange={(id) => onChange({ format: id as FormatId, quality: "good", mostMegabytes: null })}
        />
        <RateMenu output={output} film={film} onChange={onChange} />
        {format.depths.length > 1 && <DepthMenu output={output} film={film} onChange={onChange} />}
        {format.sound && <LoudnessMenu loudness={output.loudness} onChange={onChange} />}
        <FolderMenu folder={output.folder} places={places} onChange={onChange} />
      </div>
      {output.rate && (
        <ChoiceBar<Retiming>
          label={t.retiming}
          className="w-56 grid-cols-2"
          value={output.retiming}
          choices={RETIMINGS.map((value) => ({ value, name: t[value], hint: t[`${value}Hint`] }))}
          onChange={(retiming) => onChange({ retiming })}
        />
      )}
      {format.quality && format.oneQualityAt !== depth && (
        <div className="grid grid-cols-[minmax(0,1fr)_7rem_9rem] items-end gap-3">
          <ChoiceBar
            label={t.quality}
            className="grid-cols-3"
            value={typeof output.quality === "number" ? null : output.quality}
            choices={QUALITIES.map((value) => ({ value, name: t[value], hint: t[`${value}Hint`] }))}
            onChange={(quality) => onChange({ quality, mostMegabytes: null })}
          />
          <NumberField
            label={t.number(format.quality.name)}
            unit={`${format.quality.least}–${format.quality.most}`}
            hint={t.numberHint}
            digits={0}
            value={qualityNumber(format, output.quality)}
            onCommit={(value) =>
              onChange({ quality: clamped(Math.round(value), format.quality!.least, format.quality!.most) })
            }
          />
          {format.passes && (
            <NumberField
              label={t.most}
              unit={t.megabytes}
              hint={t.mostHint}
              digits={1}
              value={output.mostMegabytes ?? 0}
              rest={0}
              onCommit={(value) => onChange({ mostMegabytes: value < 0.1 ? null : Math.min(value, 1_000_000) })}
            />
          )}
        </div>
      )}
      {depth < film.bitDepth && output.depth === null && (
        <p className="text-xs text-soft">{t.fewerBits(format.name, depth, film.bitDepth)}</p>
      )}
      <PercentSlider
        label={t.sharpening}
        ends={[t.none, t.strong]}
        value={output.sharpening}
        onChange={(sharpening) => onChange({ sharpening })}
      />
    </div>
  );
}

function DepthMenu({ output, film, onChange }: Omit<OutputFieldsProps, "places">) {
  return (
    <SelectMenu
      label={t.depth}
      placeholder={t.depth}
      value={output.depth === null ? AS_FILM : String(output.depth)}
      items={[
        { value: AS_FILM, text: t.filmsDepth(outputDepth({ ...output, depth: null }, film.bitDepth)) },
        ...outputFormat(output.format).depths.map((depth) => ({ value: String(depth), text: t.bits(depth) })),
      ]}
      onChange={(value) => onChange({ depth: BIT_DEPTHS.find((depth) => String(depth) === value) ?? null })}
    />
  );
}

function RateMenu({ output, film, onChange }: Omit<OutputFieldsProps, "places">) {
  return (
    <SelectMenu
      label={t.rate}
      placeholder={t.rate}
      value={output.rate ? rateKey(output.rate) : AS_FILM}
      items={[
        { value: AS_FILM, text: t.filmsRate(formatRate(film.rate)) },
        ...RATES.filter((rate) => !isSame(rate, film.rate)).map((rate) => ({
          value: rateKey(rate),
          text: t.fps(formatRate(rate)),
        })),
      ]}
      onChange={(key) => onChange({ rate: RATES.find((rate) => rateKey(rate) === key) ?? null })}
    />
  );
}

function LoudnessMenu({ loudness, onChange }: Pick<OutputSettings, "loudness"> & Pick<OutputFieldsProps, "onChange">) {
  return (
    <SelectMenu
      label={t.loudness}
      placeholder={t.loudness}
      value={String(loudness)}
      items={[
        { value: "null", text: t.asItIs },
        { value: String(LOUDNESS.online), text: t.online },
        { value: String(LOUDNESS.broadcast), text: t.broadcast },
      ]}
      onChange={(value) => onChange({ loudness: value === "null" ? null : Number(value) })}
    />
  );
}

function FolderMenu({
  folder,
  places,
  onChange,
}: Pick<OutputSettings, "folder"> & Pick<OutputFieldsProps, "places" | "onChange">) {
  const { folders, beside } = places;
  if (folders.length === 0 && !beside && folder === null) return null;
  const selected = folder === null ? LIBRARY : folder === "beside" ? BESIDE : folder.path;
  const items = [
    { value: LIBRARY, text: t.library },
    ...(beside ? [{ value: BESIDE, text: t.beside }] : []),
    ...folders.map(({ name, path }) => ({ value: path, text: name, hint: path })),
  ];
  const known = items.some(({ value }) => value === selected);
  return (
    <SelectMenu
      label={t.folder}
      placeholder={t.folder}
      value={selected}
      items={known ? items : [...items, { value: selected, text: t.gone(selected) }]}
      onChange={(value) =>
        onChange({ folder: value === LIBRARY ? null : value === BESIDE ? "beside" : { path: value } })
      }
    />
  );
}
