/**
 * Draws up to `count` items from a source before they are requested, so that their producer works while the last one is
 * processed. A failure is thrown when its item is requested; the source is closed when the reader stops.
 */
export async function* readAhead<T>(source: AsyncGenerator<T>, count: number): AsyncGenerator<T> {
  const waiting: Promise<IteratorResult<T>>[] = [];
  const draw = () => {
    const next = source.next();
    // An item that will not be requested may fail silently.
    next.catch(() => {});
    waiting.push(next);
  };
  try {
    for (let i = 0; i < count; i++) draw();
    for (;;) {
      const { done, value } = await waiting.shift()!;
      if (done) return;
      draw();
      yield value;
    }
  } finally {
    await source.return(undefined).catch(() => {});
  }
}
