import { viewFolder } from "~/library/folders/media-folders.server";
import type { Route } from "./+types/media-folders";
import { orRefuseLater } from "./requests.server";

/** Content of an opened folder; without a path, the opened folders. */
export const loader = ({ request }: Route.LoaderArgs) =>
  orRefuseLater(() => viewFolder(new URL(request.url).searchParams.get("path")));
