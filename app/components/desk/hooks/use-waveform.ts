import { useEffect, useState } from "react";

/** Loudness of a film's sound in each frame, 0 to 255; null until it has loaded, and for a film without sound. */
export function useWaveform(filmId: string, audio: { index: number } | null): Uint8Array | null {
  const [waveform, setWaveform] = useState<Uint8Array | null>(null);
  const index = audio?.index;
  useEffect(() => {
    if (index === undefined) return;
    const gone = new AbortController();
    fetch(`/media/${filmId}/waveform-${index}.bin`, { signal: gone.signal })
      .then(async (response) => (response.ok ? new Uint8Array(await response.arrayBuffer()) : null))
      // The lane is of use without it.
      .catch(() => null)
      .then((peaks) => !gone.signal.aborted && setWaveform(peaks));
    return () => {
      gone.abort();
      setWaveform(null);
    };
  }, [filmId, index]);
  return waveform;
}
