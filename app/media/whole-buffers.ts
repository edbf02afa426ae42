/**
 * Regroups buffers of any length into buffers of one length; an incomplete last one is dropped. The caller owns each
 * buffer.
 */
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
