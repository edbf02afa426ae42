import { describe, expect, test } from "@jest/globals";
import { PerKey } from "./per-key";

describe("a value for each shot", () => {
  test("is made again only when what it is made of changes", () => {
    const values = new PerKey<object>();
    const [key, track] = [{}, {}];
    const first = values.get("a", [key, track], () => ({}));
    expect(values.get("a", [key, track], () => ({}))).toBe(first);
    expect(values.get("a", [key, {}], () => ({}))).not.toBe(first);
    // One part less is another value, too.
    const fewer = values.get("a", [key], () => ({}));
    expect(values.get("a", [key], () => ({}))).toBe(fewer);
  });

  test("is each shot's own", () => {
    const values = new PerKey<string>();
    expect([values.get("a", [1], () => "a"), values.get("b", [1], () => "b")]).toEqual(["a", "b"]);
    expect(values.get("a", [1], () => "made again")).toBe("a");
    // What is not a number is the same as itself.
    expect([values.get("c", [NaN], () => "c"), values.get("c", [NaN], () => "made again")]).toEqual(["c", "c"]);
  });
});
