/**
 * "34 kB", "340 MB", "3.4 GB": an amount of data for people, rounded down.
 * @param least the smallest unit to be used
 */
export function formatBytes(bytes: number, least: "kB" | "MB" = "kB"): string {
  if (bytes < 1e6 && least === "kB") return `${Math.floor(bytes / 1e3)} kB`;
  const megabytes = bytes / 1e6;
  return megabytes < 1000 ? `${Math.floor(megabytes)} MB` : `${(Math.floor(megabytes / 100) / 10).toFixed(1)} GB`;
}
