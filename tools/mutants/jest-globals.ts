/** What tests import from Jest, as Vitest has it. */
export * from "vitest";
export { vi as jest } from "vitest";
