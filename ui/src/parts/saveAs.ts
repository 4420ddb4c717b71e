/** Saves what a page holds as a file. */
export function saveAs(file: Blob, name: string) {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(file);
  a.download = name;
  a.click();
  // Whoever saves it has begun to read by then.
  setTimeout(() => URL.revokeObjectURL(a.href), 60_000);
}
