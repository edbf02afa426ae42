/** Lets the browser save what was made on the page. */
export function saveFile(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement("a"), { href: url, download: name });
  link.click();
  // The browser has begun to read it by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** The same of a value, as JSON that people can read. */
export const saveJson = (value: unknown, name: string): void =>
  saveFile(new Blob([`${JSON.stringify(value, null, 2)}\n`], { type: "application/json" }), name);
