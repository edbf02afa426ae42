import { expect, test } from "@jest/globals";
import { formatBytes } from "./bytes";

test("amounts of data are written as people read them", () => {
  expect([0, 999_999, 340e6, 999.9e6, 3.48e9].map((bytes) => formatBytes(bytes))).toEqual([
    "0 kB",
    "999 kB",
    "340 MB",
    "999 MB",
    "3.4 GB",
  ]);
});
