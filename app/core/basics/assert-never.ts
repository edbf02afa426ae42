/** Closes a switch over a union: a case that is missing is an error of the compiler here, and not only when it runs. */
export function assertNever(value: never): never {
  throw new Error(`unexpected: ${JSON.stringify(value)}`);
}
