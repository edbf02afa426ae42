import { type RefObject, useInsertionEffect, useRef } from "react";

/**
 * Keeps the newest value at hand for what happens later, such as an event: who only reads it then need not be made anew
 * when it changes.
 */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useInsertionEffect(() => {
    latest.current = value;
  }, [value]);
  return latest;
}
