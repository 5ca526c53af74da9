/** How long the address of a file is kept for the browser to read it, ms. */
const KEPT = 10_000;

/** Gives a file to the browser to save. */
export function saveBlob(blob: Blob, name: string): void {
  const href = URL.createObjectURL(blob);
  Object.assign(document.createElement("a"), { href, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(href), KEPT);
}
