/** Why Glad Pan cannot start here, and what to do, as a line for people. */
export class StartError extends Error {
  override name = "StartError";
}
