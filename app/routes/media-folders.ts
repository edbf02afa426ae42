import { NotOpenError, viewFolder } from "~/library/folders/media-folders.server";
import type { Route } from "./+types/media-folders";
import { refusal } from "./requests.server";

/** What is in a folder that the operator has opened; without a path, which these are. */
export async function loader({ request }: Route.LoaderArgs) {
  const path = new URL(request.url).searchParams.get("path");
  try {
    return await viewFolder(path);
  } catch (error) {
    if (error instanceof NotOpenError) throw refusal(404, error.message);
    throw error;
  }
}
