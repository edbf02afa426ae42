import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { builtKernels } from "./build-kernels";

test("the kernels that ship are those their sources compile to", async () => {
  const kernels = await builtKernels();
  expect(kernels.length).toBeGreaterThan(1);
  for (const { target, contents } of kernels)
    expect([target, contents.equals(readFileSync(target))]).toEqual([target, true]);
});
