import { clsx } from "clsx";
import { ArrowLeftRight, Lock, LockOpen } from "lucide-react";
import { RadioGroup } from "radix-ui";
import { useState } from "react";
import { IconButton } from "~/components/common/button";
import { NumberField } from "~/components/common/number-field";
import { ShapeIcon } from "~/components/common/shape-icon";
import type { Size } from "~/core/geometry/box";
import { aspectRatio } from "~/core/geometry/crop-window";
import { FRAME_SHAPES, leastEnlargement, resized, shapeOf, swapped } from "~/core/geometry/frame-shapes";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.sizeField;

interface SizeFieldProps {
  size: Size;
  /** Sizes of the source pictures. */
  pictures: readonly Size[];
  onChange: (size: Size) => void;
}

const nameOf = ({ width, height }: Size) => `${width} × ${height}`;

/** Size of a version: a usual aspect ratio and size, or any width and height, with the ratio locked or free. */
export function SizeField({ size, pictures, onChange }: SizeFieldProps) {
  const [locked, setLocked] = useState(true);
  const shape = shapeOf(size);
  const type = (side: "width" | "height", pixels: number) =>
    onChange(resized(size, side, pixels, locked ? aspectRatio(size) : null));
  return (
    <div className="flex flex-col gap-3">
      <RadioGroup.Root
        aria-label={t.shape}
        value={shape?.name ?? ""}
        onValueChange={(name) => onChange(FRAME_SHAPES.find((other) => other.name === name)!.sizes[0]!)}
        className="grid grid-cols-3 gap-2"
      >
        {FRAME_SHAPES.map(({ name, sizes }) => (
          <RadioGroup.Item
            key={name}
            value={name}
            className={clsx(
              "flex items-center gap-2 rounded-md border bg-raised px-2.5 py-2 text-left text-sm hover:border-soft",
              shape?.name === name ? "border-accent" : "border-line",
            )}
          >
            <ShapeIcon {...sizes[0]!} active={shape?.name === name} />
            {name}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {shape && (
        <div role="group" aria-label={t.size} className="flex gap-1.5">
          {shape.sizes.map((usual) => (
            <button
              key={nameOf(usual)}
              type="button"
              aria-pressed={usual.width === size.width}
              onClick={() => onChange(usual)}
              className="rounded-md border border-line px-2 py-1 text-xs hover:border-soft aria-pressed:border-accent aria-pressed:bg-accent-wash"
            >
              {nameOf(usual)}
            </button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-[1fr_auto_1fr_auto] items-end gap-2">
        <NumberField
          label={t.width}
          unit={t.px}
          digits={0}
          value={size.width}
          onCommit={(value) => type("width", value)}
        />
        <IconButton
          label={locked ? t.theRatioIsLockedUnlock : t.theRatioIsFreeLock}
          aria-pressed={locked}
          onClick={() => setLocked(!locked)}
        >
          {locked ? <Lock className="size-4" aria-hidden /> : <LockOpen className="size-4" aria-hidden />}
        </IconButton>
        <NumberField
          label={t.height}
          unit={t.px}
          digits={0}
          value={size.height}
          onCommit={(value) => type("height", value)}
        />
        <IconButton label={t.swapWidthAndHeight} onClick={() => onChange(swapped(size))}>
          <ArrowLeftRight className="size-4" aria-hidden />
        </IconButton>
      </div>
      <Enlargement pictures={pictures} size={size} />
    </div>
  );
}

/** Scale of a version at its largest window, in percent; the largest of several films. */
export function Enlargement({ pictures, size }: Pick<SizeFieldProps, "pictures" | "size">) {
  const picture = pictures.reduce((most, other) =>
    leastEnlargement(other, size) > leastEnlargement(most, size) ? other : most,
  );
  const times = leastEnlargement(picture, size);
  const window = { width: Math.round(size.width / times), height: Math.round(size.height / times) };
  return (
    <p role="note" className="text-xs text-soft">
      {t.showsUpTo(nameOf(window), pictures.length, nameOf(picture), times)}
    </p>
  );
}
