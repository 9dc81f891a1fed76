import type { Mark, Page, Rect } from '@doodla/core';
import type { Cue, FilmChapter, Hold, Noted, PlayedPart } from '@doodla/core/explain';
import type { Recorded } from '@doodla/core/replay';
import type { VideoFiles } from '../replay/playedPictures';

/** All that a film of an explanation is made from, as a worker is given it. Times are milliseconds of the playback. */
export interface FilmPlan {
  readonly title: string;
  readonly recorded: Recorded;
  /** Marks that are not shown. */
  readonly hidden: ReadonlySet<string>;
  readonly played: readonly PlayedPart[];
  /** What was noted, and the sound and videos, of each take that has some. */
  readonly noted: ReadonlyMap<string, readonly Noted[]>;
  readonly sounds: ReadonlyMap<string, Blob>;
  readonly videos: VideoFiles;
  readonly holds: readonly Hold[];
  readonly cues: readonly Cue[];
  readonly chapters: readonly FilmChapter[];
  readonly pages: ReadonlyMap<string, FilmPage>;
  /** Lines of the picture: 720 or 1080. */
  readonly lines: FilmLines;
  /** Whether captions are drawn into the picture. */
  readonly isCaptioned: boolean;
}

export const FILM_LINES = [720, 1080] as const;
export type FilmLines = (typeof FILM_LINES)[number];

/** A page as it is now, the parts of the plane that its layers take, and what was prepared on it. */
export interface FilmPage {
  readonly page: Page;
  readonly bounds: readonly (Rect | undefined)[];
  readonly prepared: readonly Mark[];
}

/** What only the page can do for the worker. */
export interface FilmHost {
  surface(page: Page, width: number): Promise<ImageBitmap>;
  picture(material: string): Promise<ImageBitmap | undefined>;
  onProgress(share: number): void;
}

export interface MadeFilm {
  readonly blob: Blob;
  /** Of its file's name. */
  readonly ending: 'mp4' | 'webm' | 'm4a' | 'ogg';
}

/** What a worker throws where the browser has nothing that makes such a file. */
export const NO_ENCODER = 'no-encoder';
