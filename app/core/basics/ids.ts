import { z } from "zod";

const PATTERN = /^[\w-]{1,40}$/;

/** The id of a film, version, job, person or thing. It never needs to be escaped: in a path, an address or a query. */
export const Id = z.string().regex(PATTERN, "not an id");

export const isId = (text: string): boolean => PATTERN.test(text);

/** The id of a shot: its film's and where it began, as `shotId` makes it. */
export const ShotId = z.string().regex(/^[\w.'-]{1,60}$/, "not the id of a shot");

/** The id of a track, as an analysis or a mark has given it. */
export const TrackId = z.string().regex(/^[\w.:'-]{1,80}$/, "not the id of a track");

/** The id of a picture or font, a hash of its content: the same file added twice is one. */
export const ContentId = z.string().regex(/^[0-9a-f]{32}$/, "not the id of a file");
