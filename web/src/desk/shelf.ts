/** A part of the shelf: one's own things, the school's, ready pictures, ready templates. */
export type ShelfPart = 'own' | 'school' | 'pictures' | 'templates';

/** Something beside the page where things of it can be dropped. Points are of the browser's window, CSS pixels. */
export interface DropPlace {
  covers(at: { x: number; y: number }): boolean;
  /** Takes what is selected. */
  takeMarks(): void;
  takePage(page: string): void;
}
