/**
 * Whether every test runs (`./glad-pan test all`), and not only those that find most faults in little time. What stands in
 * a file `….long.test.ts` runs only then.
 */
export const EVERY_TEST = process.env.GLAD_PAN_TESTS === "all";
