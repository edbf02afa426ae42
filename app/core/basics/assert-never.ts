/** Closes a switch over a union: a missing case is a compile-time error. */
export function assertNever(value: never): never {
  throw new Error(`unexpected: ${JSON.stringify(value)}`);
}
