import { readFile } from "node:fs/promises";
import { basename } from "node:path";
import { ReportError } from "~/core/formats/read-report";
import { UsageError } from "./options";

/**
 * Reads a report from a file.
 * @throws UsageError, which names the file, if it cannot be read, or is none
 */
export async function readReportFile<T>(file: string, read: (text: string) => T): Promise<T> {
  const text = await readFile(file, "utf8").catch((error: NodeJS.ErrnoException) => {
    throw new UsageError(
      `${file} cannot be read: ${error.code === "ENOENT" ? "there is no such file" : error.message}`,
    );
  });
  try {
    return read(text);
  } catch (error) {
    if (error instanceof ReportError) throw new UsageError(`${basename(file)}: ${error.message}`);
    throw error;
  }
}
