import { type RefObject, useInsertionEffect, useRef } from "react";

/** Keeps the newest value in a ref, for event handlers: they need not be made anew when it changes. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useInsertionEffect(() => {
    latest.current = value;
  }, [value]);
  return latest;
}
