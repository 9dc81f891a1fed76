import { FORMATS } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { cutPicture, grabPicture } from './grabPicture';

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

/** Puts a picture on a page of its own after the shown one. Throws Error with a sentence. */
export async function ontoNextPage(desk: PageDesk, png: Blob): Promise<void> {
  const { page } = desk;
  if (!page) return;
  const { material, width, height } = await desk.pictureActions.store(png);
  const scale = Math.sqrt((FORMATS.wide.width * FORMATS.wide.height) / (width * height));
  const sheet = { width: width * scale, height: height * scale };
  desk.pageActions.add({ ...sheet, surface: { kind: 'picture', material } }, page.id, 'after');
}

/** Grabs what is shown, with what is written on it, onto a page of its own. Throws Error with a sentence. */
export async function grabToNextPage(desk: PageDesk): Promise<void> {
  await ontoNextPage(desk, await cutPicture(await grabPicture(desk, true), WHOLE));
}
