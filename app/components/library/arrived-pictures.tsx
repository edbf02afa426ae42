import { clsx } from "clsx";
import { useEffect, useState } from "react";
import { Slider } from "~/components/common/slider";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.arrivedPictures;

interface ArrivedPicturesProps {
  uploadId: string;
  /** Bytes received. */
  sent: number;
  /** Bytes in all. */
  total: number;
}

/** Share of the received part that is safe to decode: pictures near its end may need data still to come. */
const SURE_SHARE = 0.97;
/** Bytes between requests for the film's length, while that is unknown. */
const ASK_BYTES = 64e6;

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;

/** The received pictures of a film, to be browsed while the rest is uploaded; nothing where they cannot be shown yet. */
export function ArrivedPictures({ uploadId, sent, total }: ArrivedPicturesProps) {
  const [length, setLength] = useState<number | null>(null);
  const [shown, setShown] = useState<{ second: number; url: string } | null>(null);
  const [wanted, setWanted] = useState(0);
  const asked = length === null ? Math.floor(sent / ASK_BYTES) : -1;
  useEffect(() => {
    if (asked < 0) return;
    const controller = new AbortController();
    fetch(`/arrivals/${uploadId}`, { signal: controller.signal })
      .then((response) => response.json() as Promise<{ seconds: number | null }>)
      .then(({ seconds }) => setLength(seconds))
      .catch(() => {
        // It is asked again when more has come.
      });
    return () => controller.abort();
  }, [uploadId, asked]);

  const seconds = SURE_SHARE * (sent / total) * (length ?? 0);
  const canBeSeen = seconds > 0;
  useEffect(() => {
    if (!canBeSeen) return;
    const controller = new AbortController();
    fetch(`/arrivals/${uploadId}/${Math.round(1000 * wanted)}.jpg`, { signal: controller.signal })
      .then(async (response) => {
        if (response.ok) setShown({ second: wanted, url: URL.createObjectURL(await response.blob()) });
      })
      .catch(() => {
        // What is shown stays.
      });
    return () => controller.abort();
  }, [uploadId, wanted, canBeSeen]);
  useEffect(() => {
    if (shown) return () => URL.revokeObjectURL(shown.url);
  }, [shown]);

  if (!shown) return null;
  const isLate = shown.second !== wanted;
  return (
    <div className="mt-3">
      <img
        src={shown.url}
        alt={t.arrivedAt(clock(shown.second))}
        className={clsx("max-h-44 w-full rounded bg-black object-contain", isLate && "opacity-50")}
      />
      <Slider
        label={t.lookAtWhatHasArrived}
        value={Math.min(wanted, seconds)}
        max={Math.max(1, Math.floor(seconds))}
        ends={["0:00", clock(seconds)]}
        heading={(value) => (
          <p role="status" className="text-xs text-soft">
            {isLate ? t.loadingAt(clock(wanted)) : t.arrivedAt(clock(value))}
          </p>
        )}
        onChange={setWanted}
      />
    </div>
  );
}
