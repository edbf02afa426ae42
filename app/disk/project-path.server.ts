import { existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** The folder of package.json, found from wherever this code was built to. */
function findRoot(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, "package.json"))) {
    const parent = dirname(folder);
    if (parent === folder) throw new Error("the project's folder was not found");
    folder = parent;
  }
  return folder;
}

let root: string | undefined;

/** Path of a file that ships with the project, such as "models/blazeface.onnx". */
export const projectPath = (file: string): string => join((root ??= findRoot()), file);
