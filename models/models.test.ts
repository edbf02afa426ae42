import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { ort, type Ort } from "~/media/onnx-runtime.server";
import { probeInput, probeVoice } from "./probe";

interface Reference {
  input: number[];
  stride: number;
  outputs: Record<string, number[]>;
}

/**
 * Largest difference between the model's outputs and what the original gave, output by output.
 *
 * @param probe makes what the original was given
 * @param others what the model is given besides
 */
async function differences(
  name: string,
  probe = probeInput,
  others: Record<string, Ort.Tensor> = {},
): Promise<Record<string, number>> {
  const reference = JSON.parse(readFileSync(`models/${name}.reference.json`, "utf8")) as Reference;
  const session = await ort.InferenceSession.create(`models/${name}.onnx`);
  const values = probe(reference.input.reduce((a, b) => a * b));
  const input = new ort.Tensor("float32", values, reference.input);
  const results = await session.run({ [session.inputNames[0]!]: input, ...others });
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

test("the voice detector says of many pieces at once what the original says of one after the other", async () => {
  const silence = new ort.Tensor("float32", new Float32Array(128), [1, 1, 128]);
  const difference = await differences("silero-vad", probeVoice, { hidden: silence, cell: silence });
  expect(difference.output).toBeLessThan(1e-5);
});
