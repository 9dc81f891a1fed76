import type { Page } from '@doodla/core';
import type { Media, Medium } from '@doodla/core/exercises';
import type { PageDesk } from '../room/pageDesk';
import { PictureSender } from '../desk/pictureSender';

/** The sounds of a lesson by what their pages are called. */
export function soundsOf(pages: readonly Page[]): Map<string, Medium> {
  return new Map(
    pages.flatMap(({ id, title, surface }): [string, Medium][] =>
      surface.kind === 'media' && surface.form === 'sound' && title.trim() !== ''
        ? [[title.trim(), { kind: 'sound', page: id }]]
        : [],
    ),
  );
}

/** Stores picture files in the lesson; each is called as its file, without signs that part a list. Throws Error with a sentence. */
export async function storePictures(desk: PageDesk, files: readonly File[]): Promise<Map<string, Medium>> {
  const sender = new PictureSender(desk, desk);
  const stored = new Map<string, Medium>();
  for (const file of files) {
    const { material, width, height } = await sender.store(file);
    stored.set(nameOf(file), { kind: 'picture', material, width, height });
  }
  return stored;
}

const nameOf = ({ name }: File) =>
  name
    .replace(/[=|;:,[\]\t]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** What items can stand for: pictures that were added, and sounds. */
export const mediaOf = (pictures: ReadonlyMap<string, Medium>, pages: readonly Page[]): Media =>
  new Map([...soundsOf(pages), ...pictures]);
