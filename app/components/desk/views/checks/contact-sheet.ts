/** A contact sheet with a picture of each shot, for people who see it without the app. */
import type { ShownAt } from "~/core/composition/composition";
import { cutOut } from "~/core/composition/composition";
import { type Size, wholeOf } from "~/core/geometry/box";
import { timecodeAt } from "~/core/time/timecode";
import { FrameGrabber } from "../../frames/frame-grabber";
import type { LightCopy } from "../../model/piece-stream";
import { type DeskFilm, type DeskShot, followedIn, subjectColour } from "../../model/desk-types";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.contactSheet;

/** A landscape A4 page at 150 dpi, in pixels. */
const PAGE = { width: 1754, height: 1240 };
const MARGIN = 60;
const HEAD = 70;
const GAP = 24;
const COLUMNS = 4;
const PICTURE_HEIGHT = 196;
const LINES = 56;
const CELL = { width: (PAGE.width - 2 * MARGIN - (COLUMNS - 1) * GAP) / COLUMNS, height: PICTURE_HEIGHT + LINES };
const ROWS = Math.floor((PAGE.height - 2 * MARGIN - HEAD + GAP) / (CELL.height + GAP));
export const SHOTS_A_PAGE = COLUMNS * ROWS;

const INK = "#222222";
const SOFT = "#666666";
const WINDOW = "#c2185b";

export interface SheetOf {
  film: DeskFilm;
  version: Size & { name: string };
  shots: readonly DeskShot[];
  shownAt: ShownAt;
  source: LightCopy;
}

const fittedInto = ({ width, height }: Size, room: Size): Size => {
  const scale = Math.min(room.width / width, room.height / height);
  return { width: Math.round(scale * width), height: Math.round(scale * height) };
};

/**
 * Draws the sheet, page by page.
 * @param onProgress called with the number of shots drawn
 * @throws DOMException named AbortError if it is given up
 */
export async function drawContactSheet(
  { film, version, shots, shownAt, source }: SheetOf,
  { onProgress, signal }: { onProgress: (done: number) => void; signal: AbortSignal },
): Promise<HTMLCanvasElement[]> {
  const grabber = new FrameGrabber(source);
  try {
    const pages: HTMLCanvasElement[] = [];
    const count = Math.max(1, Math.ceil(shots.length / SHOTS_A_PAGE));
    for (let page = 0; page < count; page++) {
      const canvas = document.createElement("canvas");
      Object.assign(canvas, PAGE);
      const pen = canvas.getContext("2d")!;
      pen.fillStyle = "#ffffff";
      pen.fillRect(0, 0, PAGE.width, PAGE.height);
      drawHead(pen, t.title(film.name, version.name), t.page(page + 1, count));
      const onPage = shots.slice(page * SHOTS_A_PAGE, (page + 1) * SHOTS_A_PAGE);
      for (const [i, shot] of onPage.entries()) {
        signal.throwIfAborted();
        const x = MARGIN + (i % COLUMNS) * (CELL.width + GAP);
        const y = MARGIN + HEAD + Math.floor(i / COLUMNS) * (CELL.height + GAP);
        await drawShot(pen, { x, y }, shot, { film, version, shownAt, grabber });
        onProgress(page * SHOTS_A_PAGE + i + 1);
      }
      pages.push(canvas);
    }
    return pages;
  } finally {
    grabber.dispose();
  }
}

const inType = (pen: CanvasRenderingContext2D, font: string, colour: string) => {
  pen.font = font;
  pen.fillStyle = colour;
  pen.textBaseline = "top";
};

function drawHead(pen: CanvasRenderingContext2D, title: string, page: string): void {
  inType(pen, '600 34px "Bricolage Grotesque Variable", sans-serif', INK);
  pen.fillText(title, MARGIN, MARGIN - 10, PAGE.width - 2 * MARGIN - 160);
  inType(pen, '22px "Inter Variable", sans-serif', SOFT);
  pen.textAlign = "right";
  pen.fillText(page, PAGE.width - MARGIN, MARGIN);
  pen.textAlign = "left";
}

interface DrawnWith extends Pick<SheetOf, "film" | "version" | "shownAt"> {
  grabber: FrameGrabber;
}

/** The film's frame with the window, the version's frame beside it, and place, keys and flags of the shot below. */
async function drawShot(
  pen: CanvasRenderingContext2D,
  { x, y }: { x: number; y: number },
  shot: DeskShot,
  { film, version, shownAt, grabber }: DrawnWith,
): Promise<void> {
  const frame = shot.tellingFrame;
  const composition = shownAt(frame);
  const framed = fittedInto(version, { width: 0.4 * CELL.width, height: PICTURE_HEIGHT });
  const whole = fittedInto(film.picture, { width: CELL.width - framed.width - 8, height: PICTURE_HEIGHT });
  const drawn = async (size: Size, shown: typeof composition) => {
    const canvas = document.createElement("canvas");
    Object.assign(canvas, size);
    await grabber.draw(frame, canvas, film.picture, shown);
    return canvas;
  };
  pen.drawImage(await drawn(whole, cutOut(wholeOf(film.picture))), x, y);
  pen.drawImage(await drawn(framed, composition), x + whole.width + 8, y);
  const scale = whole.width / film.picture.width;
  pen.strokeStyle = WINDOW;
  pen.lineWidth = 3;
  for (const { source, own } of composition.panes) {
    if (!own) {
      pen.strokeRect(x + scale * source.x, y + scale * source.y, scale * source.width, scale * source.height);
    }
  }
  const top = y + PICTURE_HEIGHT + 6;
  const followed = followedIn(shot);
  let left = x;
  if (followed) {
    pen.fillStyle = subjectColour(followed.colour);
    pen.fillRect(left, top, 22, 22);
    inType(pen, '700 16px "Inter Variable", sans-serif', "#000000");
    pen.fillText(followed.letter, left + 5, top + 3);
    left += 30;
  }
  inType(pen, '600 18px "Inter Variable", sans-serif', INK);
  pen.fillText(`${shot.number}  ${shot.name ?? timecodeAt(shot.start, film.clock)}`, left, top + 1, CELL.width - 30);
  inType(pen, '16px "Inter Variable", sans-serif', SOFT);
  const keys = shot.solved?.keys.length ?? 0;
  pen.fillText(`${t.keys(keys)}, ${t.flags(shot.flags.length)}`, x, top + 28, CELL.width);
}

/** All pages one below the other, as far as one picture can be that high. */
export function asOnePicture(pages: readonly HTMLCanvasElement[]): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  // Browsers draw no taller canvas.
  const most = 32_000;
  const height = pages.length * PAGE.height;
  const scale = Math.min(1, most / height);
  Object.assign(canvas, { width: Math.round(scale * PAGE.width), height: Math.round(scale * height) });
  const pen = canvas.getContext("2d")!;
  pages.forEach((page, i) => pen.drawImage(page, 0, scale * i * PAGE.height, scale * PAGE.width, scale * PAGE.height));
  return canvas;
}

export const blobOf = (canvas: HTMLCanvasElement, type: "image/png" | "image/jpeg"): Promise<Blob> =>
  new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error("the sheet cannot be drawn"))), type, 0.9),
  );

/** The pages as a PDF of landscape A4. */
export async function asPdf(pages: readonly HTMLCanvasElement[], title: string): Promise<Blob> {
  const { PDFDocument } = await import("pdf-lib");
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  // Points of 1/72 inch.
  const [width, height] = [842, 595];
  for (const canvas of pages) {
    const picture = await pdf.embedJpg(await (await blobOf(canvas, "image/jpeg")).arrayBuffer());
    pdf.addPage([width, height]).drawImage(picture, { x: 0, y: 0, width, height });
  }
  return new Blob([(await pdf.save()) as Uint8Array<ArrayBuffer>], { type: "application/pdf" });
}
