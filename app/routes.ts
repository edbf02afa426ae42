import { index, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  index("routes/films.tsx"),
  route("media-folders", "routes/media-folders.ts"),
  route("space", "routes/space.ts"),
  route("own-files", "routes/own-files.ts"),
  route("own-files/:fileId", "routes/own-file.ts"),
  route("house-styles", "routes/house-styles.ts"),
  route("films/:filmId", "routes/desk.tsx"),
  route("films/:filmId/tracks", "routes/tracks.ts"),
  route("films/:filmId/status", "routes/status.ts"),
  route("films/:filmId/replacement", "routes/replacement.ts"),
  route("join", "routes/join.ts"),
  route("films/:filmId/clips", "routes/clips.ts"),
  route("films/:filmId/wanted", "routes/wanted.ts"),
  route("films/:filmId/idle", "routes/idle.ts"),
  route("films/:filmId/cuts/:format", "routes/cuts.ts"),
  route("films/:filmId/captions/:format", "routes/captions.ts"),
  route("films/:filmId/speech", "routes/speech.ts"),
  route("films/:filmId/edit", "routes/edit.ts"),
  route("films/:filmId/shapes", "routes/shapes.ts"),
  route("films/:filmId/history", "routes/history.ts"),
] satisfies RouteConfig;
