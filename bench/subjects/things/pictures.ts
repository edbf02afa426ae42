/** Photographs for the benchmark: as ground, as texture, and with something in them that they are about. */
import { type Canvas, createCanvas, loadImage } from "@napi-rs/canvas";
import { basename } from "node:path";
import type { Box } from "~/core/geometry/box";
import { photographs } from "../../photographs";
import { type CutOuts, loadCutOuts } from "./cut-outs";

export interface Pictures {
  grounds: Canvas[];
  textures: Canvas[];
  /** Photographs of one thing, and where that is, as shares of the picture. */
  subjects: { photograph: Canvas; box: Box }[];
  /** Creatures and things without their ground: for scenes that are tuned on, and set aside. */
  cutOuts: { tuned: CutOuts; apart: CutOuts };
}

const box = (x: number, y: number, width: number, height: number): Box => ({ x, y, width, height });
/** What some photographs are about, by eye. */
const ABOUT: Record<string, Box> = {
  "Aqua.jpg": box(0.55, 0.4, 0.34, 0.45),
  "LadyBird.jpg": box(0.65, 0.42, 0.11, 0.2),
  "TwoWings.jpg": box(0.36, 0.26, 0.59, 0.7),
  "Garden.jpg": box(0.36, 0.2, 0.64, 0.8),
  "Kleiber_by_Lukas_Baubkus.jpg": box(0.4, 0.34, 0.16, 0.34),
  "free_by_Peter_Nerlich.jpg": box(0.24, 0.54, 0.46, 0.34),
  "seeding_by_Clements_Engelhardt.jpg": box(0.14, 0.06, 0.3, 0.45),
  "Picture_0B_by_freespace.jpg": box(0.2, 0.12, 0.78, 0.84),
};
const LARGEST = 1920;

async function load(file: string): Promise<Canvas> {
  const image = await loadImage(file);
  const scale = Math.min(1, LARGEST / Math.max(image.width, image.height));
  const canvas = createCanvas(Math.round(image.width * scale), Math.round(image.height * scale));
  canvas.getContext("2d").drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas;
}

export async function loadPictures(): Promise<Pictures> {
  const files = [...photographs("nature"), ...photographs("phone")];
  const pictures: Pictures = { grounds: [], textures: [], subjects: [], cutOuts: await loadCutOuts() };
  for (const file of files) {
    const photograph = await load(file);
    const about = ABOUT[basename(file)];
    if (about) pictures.subjects.push({ photograph, box: about });
    // What has a subject of its own is no ground for another.
    else if (photograph.width > photograph.height) pictures.grounds.push(photograph);
    pictures.textures.push(photograph);
  }
  return pictures;
}
