/**
 * Draws items from a source before they are asked for, up to `count` of them, so that whoever makes them works on
 * while the last one is looked at. Failures come up when the item that failed is asked for; the source is closed
 * when the reader stops.
 */
export async function* readAhead<T>(source: AsyncGenerator<T>, count: number): AsyncGenerator<T> {
  const waiting: Promise<IteratorResult<T>>[] = [];
  const draw = () => {
    const next = source.next();
    // An item that nobody will ask for any more may fail unheard.
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
