import type { Page } from '@doodla/core';
import type { PackSources, SettledTake } from '@doodla/core/explain';
import { hasOriginal, marksIn, NotedTake, packed, picturesOn, videosIn } from '@doodla/core/explain';
import type { MakeOptions } from '../film/makeFilm';
import type { VideoFiles } from '../replay/playedPictures';
import type { PageDesk } from '../room/pageDesk';
import { drawSurface, loadPictures } from '../room/thumbnail';
import { t } from '../words';
import { writePack } from './packFiles';

/** How wide a page of a document is drawn, and how high at most; pixels. */
const WIDTH = 2560;
const MOST_HEIGHT = 8000;
/** Nobody sees the difference to a picture that is exactly right. */
const QUALITY = 0.9;

export interface PackPlan extends PackSources {
  /** The sound and videos of each take that has some. */
  readonly sounds: ReadonlyMap<string, Blob>;
  readonly videos: VideoFiles;
}

/**
 * Packs an explanation with all that it plays by, and nothing of what was cut out or hidden. Throws the signal's reason when
 * aborted, and an error with a sentence where it cannot be made.
 */
export async function makePack(
  desk: PageDesk,
  { sounds, videos, ...sources }: PackPlan,
  { signal, onProgress }: MakeOptions,
): Promise<Blob> {
  const { explanation, takes } = packed(sources);
  const wanted = stretchesIn(takes, sources.noted, { sounds, videos });
  const documents = explanation.pages.filter(hasOriginal);
  const materials = materialsOf(explanation);
  const total = documents.length + materials.size + wanted.length + 1;
  let done = 0;
  const each = async <T>(work: Promise<T>): Promise<T> => {
    signal.throwIfAborted();
    const made = await work;
    done += 1;
    onProgress(done / total);
    return made;
  };
  const grounds = new Map<string, Blob>();
  for (const { page } of documents) grounds.set(page.id, await each(groundOf(desk, page)));
  const pictures = new Map<string, Blob>();
  for (const material of materials) {
    const picture = await each(pictureOf(desk, material));
    if (picture) pictures.set(material, picture);
  }
  const cut = {
    sounds: new Map<string, Blob>(),
    videos: new Map<string, Blob>(),
    faces: new Map<string, Blob>(),
  };
  for (const { folder, take, file, from, to } of wanted)
    cut[folder].set(take, await each(stretchOf(file, from, to)));
  signal.throwIfAborted();
  return writePack({ explanation, grounds, pictures, ...cut });
}

/** A stretch of a file that belongs to a take. */
interface Stretch {
  readonly folder: 'sounds' | 'videos' | 'faces';
  readonly take: string;
  readonly file: Blob;
  readonly from: number;
  readonly to: number;
}

/** All that is heard and moves; what cannot be read here would be missing without a word, so it throws a sentence. */
function stretchesIn(
  takes: readonly SettledTake[],
  noted: PackPlan['noted'],
  { sounds, videos }: Pick<PackPlan, 'sounds' | 'videos'>,
): Stretch[] {
  return takes.flatMap(({ take, part }) => {
    const stretch = (
      folder: Stretch['folder'],
      file: Blob | undefined,
      from: number,
      to = from + part.length,
    ): Stretch => {
      if (!file) throw new Error(t(folder === 'sounds' ? 'explain.voiceMissing' : 'explain.movingNotPacked'));
      return { folder, take: take.id, file, from, to };
    };
    const heard = (id: string, at: number) => {
      const { sound } = new NotedTake(noted.get(id) ?? []);
      return stretch('sounds', sounds.get(id), sound.toSound(at), sound.toSound(at + part.length));
    };
    const { voice, from } = part;
    const seen = videosIn(part, new NotedTake(noted.get(part.take.id) ?? []));
    return [
      ...(voice ? [heard(voice.take.id, voice.from)] : []),
      ...seen.map((track) =>
        stretch(track === 'face' ? 'faces' : 'videos', videos[track].get(part.take.id), from),
      ),
    ];
  });
}

function materialsOf(explanation: Parameters<typeof marksIn>[0]): Set<string> {
  const marks = marksIn(explanation);
  return new Set(
    explanation.pages.flatMap(({ page }) => [...picturesOn({ page, marks: marks.get(page.id) ?? [] })]),
  );
}

async function groundOf(desk: PageDesk, page: Page): Promise<Blob> {
  const { width, height } = desk.extentOf(page);
  await loadPictures(page, [], desk);
  return encoded(await drawSurface(page, desk, Math.round(Math.min(WIDTH, (MOST_HEIGHT * width) / height))));
}

async function pictureOf(desk: PageDesk, material: string): Promise<Blob | undefined> {
  const bitmap = await desk.pictures.load(material);
  if (!bitmap) return undefined;
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [bitmap.width, bitmap.height];
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
  return encoded(canvas);
}

/** As WebP, or as PNG in a browser that writes no WebP. */
function encoded(canvas: HTMLCanvasElement): Promise<Blob> {
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error(t('explain.notMade')))),
      'image/webp',
      QUALITY,
    ),
  );
}

async function stretchOf(file: Blob, from: number, to: number): Promise<Blob> {
  const { trimmed } = await import('../media/seekable');
  return trimmed(file, from / 1000, to / 1000);
}
