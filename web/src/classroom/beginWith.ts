import { FORMATS } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';

/** What a lesson that was made a moment ago begins with. */
export type Beginning = { kind: 'pictures'; files: readonly File[] } | { kind: 'photo' };

let waiting: { lesson: string; beginning: Beginning } | undefined;

/** Says what a new lesson begins with, once it has been opened in this tab. */
export function beginWith(lesson: string, beginning: Beginning): void {
  waiting = { lesson, beginning };
}

/** What a lesson begins with, told once. */
export function takeBeginning(lesson: string): Beginning | undefined {
  if (waiting?.lesson !== lesson) return undefined;
  const { beginning } = waiting;
  waiting = undefined;
  return beginning;
}

/** Makes a page of each picture, in the place of the blank one. What cannot be read is said, and the rest goes on. */
export async function makePicturePages(desk: PageDesk, files: readonly File[]): Promise<void> {
  const { pageActions, pictureActions } = desk;
  const blank = desk.pageId.get();
  if (blank === undefined) return;
  let after = blank;
  for (const file of files) {
    try {
      const { material, width, height } = await pictureActions.store(file);
      const scale = Math.sqrt((FORMATS.wide.width * FORMATS.wide.height) / (width * height));
      const size = { width: width * scale, height: height * scale };
      const sheet = { ...size, surface: { kind: 'picture', material } } as const;
      after = pageActions.addQuietly(sheet, after, '');
    } catch (error) {
      desk.tellProblem(`${file.name}: ${(error as Error).message}`);
    }
  }
  if (after === blank) return;
  pageActions.remove([blank]);
}
