import { viewFolder } from "~/library/folders/media-folders.server";
import type { Route } from "./+types/media-folders";
import { orRefuseLater } from "./requests.server";

/** What is in a folder that the operator has opened; without a path, which these are. */
export const loader = ({ request }: Route.LoaderArgs) =>
  orRefuseLater(() => viewFolder(new URL(request.url).searchParams.get("path")));
