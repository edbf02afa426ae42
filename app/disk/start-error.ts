/** Why Glad Pan cannot start here, and what to do, in one line for people. */
export class StartError extends Error {
  override name = "StartError";
}
