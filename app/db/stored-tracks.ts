import { z } from "zod";
import { PackedTrack, packTrack } from "~/core/subjects/tracking/packed-tracks";
import type { Track } from "~/core/subjects/tracking/track";

/** A track as stored; an older Glad Pan stored its boxes one by one. */
export const StoredTrack = z.preprocess(
  (stored) =>
    stored !== null && typeof stored === "object" && "boxes" in stored ? packTrack(stored as Track) : stored,
  PackedTrack,
);
export const StoredTracks = z.array(StoredTrack);
