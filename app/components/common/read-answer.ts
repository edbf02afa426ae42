import type { z } from "zod";

/**
 * Requests JSON from our server, past every cache.
 * @throws Error with the server's message if it refuses
 */
export async function readAnswer<T>(url: string, schema: z.ZodType<T>): Promise<T> {
  const response = await fetch(url, { cache: "no-store" });
  if (!response.ok) throw new Error(await response.text());
  return schema.parse(await response.json());
}
