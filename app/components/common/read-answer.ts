import type { z } from "zod";

/**
 * Asks our server for something, as it is now.
 *
 * @throws Error with what the server says where it refuses
 */
export async function readAnswer<T>(url: string, schema: z.ZodType<T>): Promise<T> {
  const response = await fetch(url, { cache: "no-store" });
  if (!response.ok) throw new Error(await response.text());
  return schema.parse(await response.json());
}
