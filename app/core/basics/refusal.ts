import { asSentence, withFullStop } from "./sentence";

/**
 * A request that is refused because it makes no sense or does not fit the present state. Nothing is broken and nothing was
 * changed. The message is for people, and follows "That did not work: ".
 */
export class Refusal extends Error {
  override name = "Refusal";

  /** @param status HTTP status of the answer */
  constructor(
    message: string,
    readonly status: 404 | 409 | 422 = 409,
  ) {
    super(message);
  }

  /** The message as a sentence by itself. */
  get sentence(): string {
    return asSentence(this.message);
  }
}

/** A file cannot be used. The message begins with its name, which is never capitalised. */
export class FileRefusal extends Refusal {
  override name = "FileRefusal";

  constructor(message: string, status: Refusal["status"] = 422) {
    super(message, status);
  }

  override get sentence(): string {
    return withFullStop(this.message);
  }
}
