/** A file that was made, to be saved on its own or packed with others. */
export interface MadeFile {
  name: string;
  bytes: Uint8Array;
}

/** What the file of a page is called, so that files lie in the order of the pages. */
export function pageName(index: number, count: number, ending: string): string {
  return `${String(index + 1).padStart(Math.max(2, String(count).length), '0')}.${ending}`;
}
