import { Film } from "lucide-react";
import { useState } from "react";
import type { FilmView } from "./library-view";

/** A film's poster, or a placeholder. */
export function Poster({ film, ready }: { film: Pick<FilmView, "id" | "fingerprint">; ready: boolean }) {
  const [failed, setFailed] = useState(false);
  return (
    <div className="flex aspect-video items-center justify-center bg-well">
      {ready && !failed ? (
        <img
          src={`/media/${film.id}/poster.jpg?of=${film.fingerprint ?? ""}`}
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
