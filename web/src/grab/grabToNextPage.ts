import { FORMATS } from '@doodla/core';
import type { Workspace } from '../workspace/workspace';
import { cutPicture, grabPicture } from './grabPicture';

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

/** Puts a picture on a page of its own after the shown one. Throws Error with a sentence. */
export async function ontoNextPage(workspace: Workspace, png: Blob): Promise<void> {
  const { page } = workspace;
  if (!page) return;
  const { material, width, height } = await workspace.pictureActions.store(png);
  const scale = Math.sqrt((FORMATS.wide.width * FORMATS.wide.height) / (width * height));
  const sheet = { width: width * scale, height: height * scale };
  workspace.pageActions.add({ ...sheet, surface: { kind: 'picture', material } }, page.id, 'after');
}

/** Grabs what is shown, with what is written on it, onto a page of its own. Throws Error with a sentence. */
export async function grabToNextPage(workspace: Workspace): Promise<void> {
  await ontoNextPage(workspace, await cutPicture(await grabPicture(workspace, true), WHOLE));
}
