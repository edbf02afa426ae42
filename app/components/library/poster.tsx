import { Film } from "lucide-react";
import { useState } from "react";

/** A picture of a film; what holds its place where there is none. */
export function Poster({ filmId, ready }: { filmId: string; ready: boolean }) {
  const [failed, setFailed] = useState(false);
  return (
    <div className="flex aspect-video items-center justify-center bg-well">
      {ready && !failed ? (
        <img
          src={`/media/${filmId}/poster.jpg`}
          alt=""
          loading="lazy"
          className="size-full object-contain"
          onError={() => setFailed(true)}
        />
      ) : (
        <Film className="size-8 max-w-1/2 text-soft/60" aria-hidden />
      )}
    </div>
  );
}
