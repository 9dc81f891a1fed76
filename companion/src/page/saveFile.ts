/** Gives a file to the browser to be saved. */
export function saveFile(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  // Never in the page's own document: it would see the address.
  link.click();
  // The browser has read it by then, or never will.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
