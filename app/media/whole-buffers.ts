/** What comes in pieces of any length, as buffers of one length; what is left at the end is dropped. Each is the caller's to keep. */
export async function* wholeBuffers(pieces: AsyncIterable<Buffer>, length: number): AsyncGenerator<Buffer> {
  let buffer = Buffer.allocUnsafe(length);
  let filled = 0;
  for await (const piece of pieces) {
    for (let at = 0; at < piece.length;) {
      const part = Math.min(length - filled, piece.length - at);
      piece.copy(buffer, filled, at, at + part);
      filled += part;
      at += part;
      if (filled < length) continue;
      filled = 0;
      yield buffer;
      buffer = Buffer.allocUnsafe(length);
    }
  }
}
