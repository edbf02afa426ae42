/** Lets the browser save a blob as a file. */
export function saveFile(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement("a"), { href: url, download: name });
  link.click();
  // The browser has begun to read it by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Saves a value as indented JSON. */
export const saveJson = (value: unknown, name: string): void =>
  saveFile(new Blob([`${JSON.stringify(value, null, 2)}\n`], { type: "application/json" }), name);
