import type { ArchivedPage, ArchiveHead } from '@doodla/core/archive';
import { HEAD_FILE, HEAD_SCHEMA, PAGE_SCHEMA } from '@doodla/core/archive';
import { facesOn, picturesOn, svgPage } from '@doodla/core/formats';
import { createWriteStream, existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import type { ArchiveNote, PackedFile } from './archiveTask.js';

const READ_ME = `A lesson with its classes, as files that any program can read.

lesson.json        what is in here; schema/lesson.schema.json describes it (JSON Schema, draft 2020-12)
pages/*.json       the pages of the lesson with their marks; schema/page.schema.json describes them
classes/N/*.json   the pages of each class with what was written on them
*.svg              a drawing of the page beside it, *.webp what lies under its marks
files/*            the originals and pictures, as they were brought in
`;

interface Packing {
  /** Where the head, the pages and pictures of what lies under their marks have been written. */
  folder: string;
  files: readonly PackedFile[];
  out: string;
}

/** Draws the pages of an archive and packs it (ZIP), each part compressed where that makes it smaller. */
export async function pack(
  { folder, files, out }: Packing,
  tell: (note: ArchiveNote) => Promise<unknown>,
): Promise<void> {
  const zip = new ZipFile();
  const written = pipeline(zip.outputStream, createWriteStream(out));
  const head = JSON.parse(await readFile(join(folder, HEAD_FILE), 'utf8')) as ArchiveHead;
  zip.addBuffer(Buffer.from(READ_ME), 'README.txt');
  zip.addFile(join(folder, HEAD_FILE), HEAD_FILE);
  zip.addBuffer(json(HEAD_SCHEMA), 'schema/lesson.schema.json');
  zip.addBuffer(json(PAGE_SCHEMA), 'schema/page.schema.json');
  const paths = [...head.pages, ...head.classes.flatMap(({ pages }) => pages)];
  const pictures = new Map(head.files.map(({ id, path }) => [id, path]));
  for (const [i, path] of paths.entries()) {
    zip.addFile(join(folder, path), path);
    const ground = path.replace(/json$/, 'webp');
    const hasGround = existsSync(join(folder, ground));
    if (hasGround) zip.addFile(join(folder, ground), ground, { compress: false });
    const page = JSON.parse(await readFile(join(folder, path), 'utf8')) as ArchivedPage;
    zip.addBuffer(Buffer.from(await drawing(page, path, hasGround, pictures)), path.replace(/json$/, 'svg'));
    await tell({ done: i + 1, total: paths.length });
  }
  for (const { path, from } of files) zip.addFile(from, path, { compress: false });
  zip.end();
  await written;
}

/** A page as a drawing that finds its pictures beside it. */
async function drawing(
  { page, marks }: ArchivedPage,
  path: string,
  hasGround: boolean,
  pictures: ReadonlyMap<string, string>,
): Promise<string> {
  const shown = marks.filter(({ space }) => space === 'class');
  const handed = { page, marks: [...shown].sort((a, b) => (a.order < b.order ? -1 : 1)) };
  await facesOn(handed);
  const known = picturesOn(handed);
  const up = '../'.repeat(path.split('/').length - 1);
  return svgPage(handed, {
    title: page.title,
    hrefOf: (id) => (known.has(id) && pictures.has(id) ? up + pictures.get(id)! : undefined),
    ground: hasGround ? { href: path.split('/').at(-1)!.replace(/json$/, 'webp') } : undefined,
  });
}

function json(value: unknown): Buffer {
  return Buffer.from(JSON.stringify(value, undefined, 2));
}
