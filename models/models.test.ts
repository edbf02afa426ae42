import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import * as ort from "onnxruntime-node";

/** The same values as `probeInput` in tools/models/graph-model.ts. */
const probeInput = (length: number) => Float32Array.from({ length }, (_, i) => (Math.imul(i, 2654435761) >>> 24) / 255);

interface Reference {
  input: number[];
  stride: number;
  outputs: Record<string, number[]>;
}

/** Largest difference between the model's outputs and what the original gave, output by output. */
async function differences(name: string): Promise<Record<string, number>> {
  const reference = JSON.parse(readFileSync(`models/${name}.reference.json`, "utf8")) as Reference;
  const session = await ort.InferenceSession.create(`models/${name}.onnx`);
  const probe = probeInput(reference.input.reduce((a, b) => a * b));
  const results = await session.run({ [session.inputNames[0]!]: new ort.Tensor("float32", probe, reference.input) });
  return Object.fromEntries(
    Object.entries(reference.outputs).map(([output, expected]) => {
      const data = results[output]!.data as Float32Array;
      const taken = Array.from(data).filter((_, i) => i % reference.stride === 0);
      expect(taken).toHaveLength(expected.length);
      return [output, Math.max(...taken.map((value, i) => Math.abs(value - expected[i]!)))];
    }),
  );
}

test("the face detector's outputs are those of the original", async () => {
  for (const difference of Object.values(await differences("blazeface"))) expect(difference).toBeLessThan(5e-4);
});

test("the object detector's outputs are close to those of the original, given its 8-bit weights", async () => {
  const difference = await differences("nanodet");
  // Class probabilities, then logits of the box distances.
  for (const output of ["Identity", "Identity_1", "Identity_2"]) expect(difference[output]).toBeLessThan(0.04);
  for (const output of ["Identity_3", "Identity_4", "Identity_5"]) expect(difference[output]).toBeLessThan(0.8);
});
