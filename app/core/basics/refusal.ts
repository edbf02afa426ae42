import { asSentence, withFullStop } from "./sentence";

/**
 * Something that was asked for is not done, because it makes no sense or does not fit what there is. Nothing is broken
 * and nothing was changed. The message is for people, to follow "That did not work: ".
 */
export class Refusal extends Error {
  override name = "Refusal";

  /** @param status how it is answered over HTTP */
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

/** A file cannot be used. The message begins with its name, which is not to be capitalised. */
export class FileRefusal extends Refusal {
  override name = "FileRefusal";

  constructor(message: string, status: Refusal["status"] = 422) {
    super(message, status);
  }

  override get sentence(): string {
    return withFullStop(this.message);
  }
}
