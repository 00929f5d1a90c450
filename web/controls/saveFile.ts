/** Hands a file that was made here to the person. */
export function saveFile(name: string, file: Blob): void {
  const url = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser reads it a moment later.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
