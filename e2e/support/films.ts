import type { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { PNG } from 'pngjs';

/** What ffprobe says of a film; seconds. */
export interface Film {
  readonly duration: number;
  /** The name of the codec of each kind of stream that ffmpeg knows; `unknown` else. */
  readonly streams: Readonly<Record<string, string>>;
  /** What the file itself calls them, in MP4. */
  readonly tags: readonly string[];
  readonly size: readonly [number, number];
  readonly chapters: readonly { from: number; to: number; title: string }[];
}

export function probedFilm(path: string): Film {
  const args = ['-v', 'error', '-show_format', '-show_streams', '-show_chapters', '-of', 'json', path];
  const said = JSON.parse(execFileSync('ffprobe', args).toString()) as {
    format: { duration: string };
    streams: {
      codec_type: string;
      codec_name?: string;
      codec_tag_string: string;
      width?: number;
      height?: number;
    }[];
    chapters: { start_time: string; end_time: string; tags?: { title: string } }[];
  };
  const picture = said.streams.find((one) => one.codec_type === 'video');
  return {
    duration: Number(said.format.duration),
    streams: Object.fromEntries(
      said.streams.map((one) => [one.codec_type, one.codec_name ?? 'unknown'] as const),
    ),
    tags: said.streams.map(({ codec_tag_string }) => codec_tag_string),
    size: [picture?.width ?? 0, picture?.height ?? 0],
    chapters: said.chapters.map((one) => ({
      from: Number(one.start_time),
      to: Number(one.end_time),
      title: one.tags?.title ?? '',
    })),
  };
}

/** The part of a film's picture that a page of a width to height takes, at a time, `width` pixels wide; by ffmpeg. */
export function pageInFilm(path: string, seconds: number, shape: Shape, width: number): PNG {
  const args = ['-v', 'error', '-ss', String(seconds), '-i', path, '-frames:v', '1'];
  const out = ['-vf', `${cropTo(shape)},scale=${width}:-1`, '-f', 'image2pipe', '-c:v', 'png', 'pipe:1'];
  return PNG.sync.read(execFileSync('ffmpeg', [...args, ...out], { maxBuffer: 1e8 }));
}

export const GRID = 25;
const DARK = 128;

/** How many pixels of the page in a film are dark at each 25th of a second; decoded by ffmpeg. */
export function darknessOf(path: string, shape: Shape): number[] {
  const args = ['-v', 'error', '-i', path, '-vf', `fps=${GRID}:round=down,${cropTo(shape)}`];
  const raw = execFileSync('ffmpeg', [...args, '-pix_fmt', 'gray', '-f', 'rawvideo', 'pipe:1'], {
    maxBuffer: 2e9,
  });
  const [width, height] = probedFilm(path).size;
  const size =
    Math.trunc(Math.min(width, (height * shape.width) / shape.height)) *
    Math.trunc(Math.min(height, (width * shape.height) / shape.width));
  return Array.from({ length: Math.floor(raw.length / size) }, (_, i) => {
    let dark = 0;
    for (let at = i * size; at < (i + 1) * size; at++) if (raw[at]! < DARK) dark += 1;
    return dark;
  });
}

interface Shape {
  readonly width: number;
  readonly height: number;
}

/** The part of a picture that a page of a shape takes in its middle, all of one of its sides. */
function cropTo({ width, height }: Shape): string {
  const ratio = width / height;
  return `crop='min(iw,ih*${ratio})':'min(ih,iw/${ratio})':exact=1`;
}

/** A film of some seconds that has colours one after the other, each as long, as the browser of a page records one. */
export async function filmHere(page: Page, seconds: number, colours: readonly string[]): Promise<Buffer> {
  const bytes = await page.evaluate(
    async ({ length, shown }) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [320, 240];
      const ctx = canvas.getContext('2d')!;
      const began = performance.now();
      const timer = setInterval(() => {
        const at = Math.floor(((performance.now() - began) / length) * shown.length);
        ctx.fillStyle = shown[Math.min(at, shown.length - 1)]!;
        ctx.fillRect(0, 0, 320, 240);
      }, 40);
      const recorder = new MediaRecorder(canvas.captureStream(25), { mimeType: 'video/webm;codecs=vp8' });
      const parts: Blob[] = [];
      recorder.ondataavailable = ({ data }) => parts.push(data);
      recorder.start();
      await new Promise((resolve) => setTimeout(resolve, length));
      const stopped = new Promise((resolve) => (recorder.onstop = resolve));
      recorder.stop();
      await stopped;
      clearInterval(timer);
      return [...new Uint8Array(await new Blob(parts).arrayBuffer())];
    },
    { length: seconds * 1000, shown: colours },
  );
  return Buffer.from(bytes);
}
