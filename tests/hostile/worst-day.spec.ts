/**
 * A small share of `./glad-pan bench worst-day`, which tries each many times. The long run has more kills and more damage:
 * rarer moments of the same kinds.
 */
import { expect, test } from "@playwright/test";
import { damagedFilms } from "../../bench/worst-day/films";
import { canMount, fullDisk } from "../../bench/worst-day/full-disk";
import { killedServers } from "../../bench/worst-day/kills";
import { EVERY_TEST } from "../support/every-test";
import { orderlyStops, secondStarts } from "../../bench/worst-day/starts";

test.describe.configure({ retries: 0 });

const SEED = 7;

test("films that were damaged are worked with or refused in a sentence", async () => {
  expect((await damagedFilms(EVERY_TEST ? 18 : 6, SEED)).failures).toEqual([]);
});

test("a server that is killed at any moment loses nothing that was acknowledged", async () => {
  expect((await killedServers(EVERY_TEST ? 5 : 2, SEED)).failures).toEqual([]);
});

test("a full disk is said, and costs nothing", async () => {
  test.skip(!canMount(), "no file system can be mounted here");
  expect((await fullDisk()).failures).toEqual([]);
});

test("a second start, and one that makes no sense, ends with one line and disturbs nothing", async () => {
  expect((await secondStarts()).failures).toEqual([]);
});

test("a server that is asked to stop gives its work back", async () => {
  expect((await orderlyStops(EVERY_TEST ? 2 : 1)).failures).toEqual([]);
});
