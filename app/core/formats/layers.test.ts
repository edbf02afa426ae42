import { expect, test } from "@jest/globals";
import { Layers, newBar, newPicture, newText } from "../composition/layers/layer";
import { LayersError, readLayers } from "./layers";

const file = (more: object) => JSON.stringify({ format: "glad-pan/layers", version: 1, layers: [], ...more });

test("layers of a file are as on the desk where it does not say otherwise", () => {
  const logo = { id: "0123456789abcdef0123456789abcdef", name: "logo.png", width: 40, height: 20 };
  const { layersWith, files, safeArea } = readLayers(
    file({
      safeArea: { left: 0, top: 0.1, right: 0, foot: 0.2 },
      layers: [
        { kind: "shape", height: 0.2 },
        { kind: "picture", file: "logo.png", width: 0.2 },
        { kind: "text", text: "Ferrow", fontFile: "own.ttf", range: { start: 0, end: 40 }, arrives: "cut" },
      ],
    }),
  );
  expect(files).toEqual({ pictures: ["logo.png"], fonts: ["own.ttf"] });
  const font = { id: "abcdef0123456789abcdef0123456789", name: "own.ttf" };
  const layers = layersWith({ pictures: new Map([["logo.png", logo]]), fonts: new Map([["own.ttf", font]]) });
  expect(layers).toEqual([
    { ...newBar("layer-1"), height: 0.2 },
    { ...newPicture("layer-2", logo), width: 0.2 },
    { ...newText("layer-3", "Ferrow"), font, range: { start: 0, end: 40 }, arrives: "cut" },
  ]);
  expect(Layers.parse(layers)).toEqual(layers);
  expect(safeArea).toMatchObject({ top: 0.1, foot: 0.2 });
  expect(readLayers(file({})).safeArea).toBeNull();
});

test("what is no list of layers is refused with where it goes wrong", () => {
  const refused = (text: string) => expect(() => readLayers(text));
  refused("kites").toThrow(new LayersError("this is not JSON"));
  refused("{}").toThrow(/^format: /);
  refused(file({ layers: [{ kind: "text" }] })).toThrow(/^layers\.0\.text: /);
  refused(file({ layers: [{ kind: "text", text: "a", colour: "red" }] })).toThrow(/^layers\.0\.colour: six/);
  refused(file({ layers: [{ kind: "film" }] })).toThrow(/^layers\.0/);
});
