/** Reads imported pictures, and says what is wrong with unusable ones. */
import { createCanvas, Image } from "@napi-rs/canvas";
import { XMLParser } from "fast-xml-parser";
import { MOST_PICTURE_BYTES, MOST_PICTURE_SIDE, type PictureKind } from "~/core/composition/picture";
import type { Size } from "~/core/geometry/box";
import { contentId, OwnFileError, startsWith } from "./own-file";
import { ownFileErrors } from "~/texts/own-file-errors";

const t = ownFileErrors.picture;

export interface PictureFile {
  /** By its content. */
  id: string;
  bytes: Buffer;
  kind: PictureKind;
  size: Size;
}

/** Pixels along the longer side of a drawing, which has no pixel size of its own. */
const DRAWING_SIDE = 2160;

/** Kind of a file, by its first bytes. */
function kindOf(bytes: Buffer): PictureKind | "svg" | null {
  if (startsWith(bytes, 0x89, 0x50, 0x4e, 0x47)) return "png";
  if (startsWith(bytes, 0xff, 0xd8, 0xff)) return "jpg";
  if (bytes.toString("latin1", 0, 4) === "RIFF" && bytes.toString("latin1", 8, 12) === "WEBP") return "webp";
  return /<svg[\s>]/.test(bytes.toString("utf8", 0, 4096)) ? "svg" : null;
}

async function decoded(bytes: Buffer): Promise<Image> {
  const image = new Image();
  image.src = bytes;
  await image.decode();
  return image;
}

const fileOf = (bytes: Buffer, kind: PictureKind, size: Size): PictureFile => ({
  id: contentId(bytes),
  bytes,
  kind,
  size,
});

type XmlNode = Record<string, unknown>;

/**
 * Permitted elements of a drawing: shapes, text, gradients, and clipping paths. Filters, patterns and masks are not among
 * them: a few lines of these can keep a computer busy for minutes.
 */
const DRAWN = new Set(
  `svg g defs symbol use a title desc metadata style path rect circle ellipse line polyline polygon image text tspan
  linearGradient radialGradient stop clipPath switch`.split(/\s+/),
);
/** Whether an element is one of these, or metadata of the program that made the drawing. */
const isDrawn = (name: string): boolean => {
  if (/^[#?]/.test(name) || DRAWN.has(name)) return true;
  return name.includes(":") && !/:(filter|pattern|mask|script|foreignObject|fe[A-Z]\w*)$/.test(name);
};
/** Most repetitions of parts of a drawing; repeated parts must not repeat others. */
const MOST_REPEATED = 1000;

/** Whether a style or a value of a drawing refers to something outside it. */
const leadsOut = (value: string): boolean => /url\(\s*['"]?(?!['"]?#)/i.test(value) || /@import/i.test(value);

/** Forbidden content of a drawing, in words; null if there is none. */
function forbiddenIn(nodes: readonly XmlNode[]): string | null {
  for (const node of nodes) {
    const attributes = (node[":@"] ?? {}) as Record<string, unknown>;
    for (const [name, value] of Object.entries(attributes)) {
      if (/^on/i.test(name)) return "scripts";
      const isLink = /(^|:)(href|src)$/i.test(name) && !/^\s*(#|data:image\/(png|jpe?g|webp);)/i.test(String(value));
      if (isLink || leadsOut(String(value))) return "references to something outside of it";
    }
    for (const [name, value] of Object.entries(node)) {
      if (name === ":@") continue;
      if (/^(script|foreignObject)$/i.test(name)) return "scripts";
      if (!isDrawn(name)) return `a <${name}>`;
      if (name === "#text" && leadsOut(String(value))) return "references to something outside of it";
      const found = Array.isArray(value) ? forbiddenIn(value as XmlNode[]) : null;
      if (found) return found;
    }
  }
  return null;
}

/** Whether a drawing repeats parts too often, or recursively. */
function repeatsTooMuch(nodes: readonly XmlNode[]): boolean {
  let count = 0;
  const composed = new Set<string>();
  const repeated: string[] = [];
  const walk = (nodes: readonly XmlNode[], ids: readonly string[]) => {
    for (const node of nodes) {
      const attributes = (node[":@"] ?? {}) as Record<string, unknown>;
      const own = attributes.id === undefined ? ids : [...ids, String(attributes.id)];
      for (const [name, value] of Object.entries(node)) {
        if (name === "use") {
          count++;
          for (const id of own) composed.add(id);
          repeated.push(String(attributes["href"] ?? attributes["xlink:href"] ?? "").replace(/^\s*#/, ""));
        }
        if (name !== ":@" && Array.isArray(value)) walk(value as XmlNode[], own);
      }
    }
  };
  walk(nodes, []);
  return count > MOST_REPEATED || repeated.some((id) => composed.has(id));
}

/** A drawing as a picture of pixels, so that nothing in it is ever executed. */
async function drawn(bytes: Buffer, name: string): Promise<PictureFile> {
  const text = bytes.toString("utf8");
  let nodes: XmlNode[];
  try {
    nodes = new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: "" }).parse(
      text,
    ) as XmlNode[];
  } catch {
    throw new OwnFileError(`${name}: ${t.drawingUnreadable}`);
  }
  const forbidden = forbiddenIn(nodes);
  if (/<!ENTITY/i.test(text)) throw new OwnFileError(`${name}: ${t.drawingReachesOut}`);
  if (forbidden) throw new OwnFileError(`${name}: ${t.drawingHas(forbidden)}`);
  if (repeatsTooMuch(nodes)) throw new OwnFileError(`${name}: ${t.drawingRepeats}`);
  const image = await decoded(bytes);
  if (!(image.width > 0 && image.height > 0)) throw new Error("no size");
  const scale = DRAWING_SIDE / Math.max(image.width, image.height);
  const size = {
    width: Math.max(1, Math.round(scale * image.width)),
    height: Math.max(1, Math.round(scale * image.height)),
  };
  const canvas = createCanvas(size.width, size.height);
  canvas.getContext("2d").drawImage(image, 0, 0, size.width, size.height);
  return fileOf(canvas.toBuffer("image/png"), "png", size);
}

/**
 * Reads a picture: PNG, JPEG or WebP as it is, SVG as pixels.
 * @param name of the file, for messages
 * @throws OwnFileError if it is none, is too large, or is a drawing with scripts or outside references
 */
export async function readPicture(bytes: Buffer, name: string): Promise<PictureFile> {
  if (bytes.length > MOST_PICTURE_BYTES) {
    throw new OwnFileError(`${name}: ${t.tooManyBytes(MOST_PICTURE_BYTES / 2 ** 20)}`);
  }
  const kind = kindOf(bytes);
  if (!kind) throw new OwnFileError(`${name}: ${t.notAPicture}`);
  try {
    if (kind === "svg") return await drawn(bytes, name);
    const { width, height } = await decoded(bytes);
    if (!(width > 0 && height > 0)) throw new Error("no pixels");
    if (Math.max(width, height) > MOST_PICTURE_SIDE) {
      throw new OwnFileError(`${name}: ${t.tooManyPixels(width, height, MOST_PICTURE_SIDE)}`);
    }
    return fileOf(bytes, kind, { width, height });
  } catch (error) {
    if (error instanceof OwnFileError) throw error;
    throw new OwnFileError(`${name}: ${t.damaged}`);
  }
}
