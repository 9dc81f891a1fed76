// Documents that nobody here wrote go in and out: handed out with a mark on every page, and judged by other
// programs. Debian's package of publishers' classes for TeX ships hundreds, with links and contents lists; it is
// fetched into a folder of its own and not installed. qpdf checks the files, poppler draws them.
import { boundsOf, UNITS_PER_POINT } from '@doodla/core';
import { geometryOf, makePdf } from '@doodla/core/handout';
import { PDFDocument } from '@cantoo/pdf-lib';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { PNG } from 'pngjs';
import { corpusFolder } from './corpus.mjs';
import { report } from './report.mjs';
import { aStroke, handPoints } from './school.mjs';

const HOW_MANY = Number(process.env.BENCH_DOCUMENTS ?? 60);
const MOST_BYTES = 1_500_000;
const MOST_PAGES = 30;
const DPI = 50;
/** Channels that differ by more count as different; poppler smooths lines by what lies beside them. */
const VISIBLE = 32;

const require = createRequire(import.meta.url);
const andika = readFileSync(require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf'));
const work = mkdtempSync(join(tmpdir(), 'doodla-documents-'));

/** The package's files. */
function corpus() {
  const kept = corpusFolder();
  const all = readdirSync(kept, { recursive: true })
    .filter((name) => name.endsWith('.pdf'))
    .sort();
  const step = Math.max(1, Math.floor(all.length / (2 * HOW_MANY)));
  return all.filter((_, i) => i % step === 0).map((name) => join(kept, name));
}

/** The pages of a document as the server would list them; undefined where it is not for this bench. */
async function pagesOf(bytes) {
  const doc = await PDFDocument.load(bytes, { password: '', updateMetadata: false });
  if (doc.getPageCount() > MOST_PAGES) return undefined;
  return doc.getPages().map((page, index) => {
    const { box, rotate, userUnit } = geometryOf(page);
    const sides = [box[2] - box[0], box[3] - box[1]].map((side) => side * userUnit * UNITS_PER_POINT);
    const [width, height] = rotate % 180 === 0 ? sides : sides.reverse();
    const surface = { kind: 'pdf', material: 'm', index };
    return { id: `page-${index}`, order: `a${index}`, title: '', width, height, surface, removed: false };
  });
}

const markOn = (page) => aStroke(page, 'bench', handPoints(40, 1));

function handOut(bytes, pages) {
  const sources = { pdf: async () => bytes, font: async () => andika };
  const handout = pages.map((page) => ({ page, marks: [markOn(page.id)] }));
  return makePdf(handout, sources, { title: 'Bench' });
}

const checked = (path) => spawnSync('qpdf', ['--check', path]).status;

function drawn(path) {
  const name = join(work, 'page');
  execFileSync('pdftoppm', ['-cropbox', '-r', String(DPI), '-png', path, name], { stdio: 'ignore' });
  const files = readdirSync(work)
    .filter((file) => file.startsWith('page') && file.endsWith('.png'))
    .sort();
  return files.map((file) => {
    const png = PNG.sync.read(readFileSync(join(work, file)));
    rmSync(join(work, file));
    return png;
  });
}

/** Pixels that differ outside the mark's box. */
function differing(before, after, page) {
  if (before.width !== after.width || before.height !== after.height) return Infinity;
  const scale = DPI / 72 / UNITS_PER_POINT;
  const { x, y, width, height } = boundsOf([markOn(page.id)]);
  const [left, top] = [x * scale - 2, y * scale - 2];
  const [right, bottom] = [(x + width) * scale + 2, (y + height) * scale + 2];
  let count = 0;
  for (let i = 0; i < before.data.length; i += 4) {
    const [column, row] = [(i / 4) % before.width, Math.floor(i / 4 / before.width)];
    if (column >= left && column <= right && row >= top && row <= bottom) continue;
    if ([0, 1, 2].some((k) => Math.abs(before.data[i + k] - after.data[i + k]) > VISIBLE)) count += 1;
  }
  return count;
}

/** Links inside a document that lead to a page of it, and entries of its contents list that do. */
async function leads(bytes) {
  const doc = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const leadsOn = async (dest) => {
    const place = typeof dest === 'string' ? await doc.getDestination(dest) : dest;
    return Array.isArray(place) && place[0] !== null
      ? doc.getPageIndex(place[0]).then(
          () => true,
          () => false,
        )
      : false;
  };
  let [links, entries] = [0, 0];
  for (let i = 1; i <= doc.numPages; i++) {
    for (const { dest } of await (await doc.getPage(i)).getAnnotations())
      if (dest && (await leadsOn(dest))) links += 1;
  }
  const waiting = [...((await doc.getOutline()) ?? [])];
  for (let item = waiting.pop(); item; item = waiting.pop()) {
    if (item.dest && (await leadsOn(item.dest))) entries += 1;
    waiting.push(...item.items);
  }
  await doc.destroy();
  return { links, entries };
}

const sum = {
  documents: 0,
  pages: 0,
  failed: [],
  worse: [],
  different: [],
  links: [0, 0],
  entries: [0, 0],
  bytes: [0, 0],
};
for (const path of corpus()) {
  if (sum.documents >= HOW_MANY) break;
  const bytes = readFileSync(path);
  const pages = bytes.length <= MOST_BYTES && (await pagesOf(bytes).catch(() => undefined));
  if (!pages) continue;
  sum.documents += 1;
  sum.pages += pages.length;
  try {
    // Every second one without its first page, which is then made page by page.
    const part = sum.documents % 2 === 0 && pages.length > 1;
    const handed = part ? pages.slice(1) : pages;
    const made = await handOut(bytes, handed);
    const out = join(work, 'out.pdf');
    writeFileSync(out, made);
    if (checked(out) > checked(path)) sum.worse.push(path);
    const [before, after] = [drawn(path), drawn(out)];
    const differs = (page, i) => differing(before[page.surface.index], after[i], page) > 0;
    if (handed.some(differs)) sum.different.push(path);
    sum.bytes = [sum.bytes[0] + bytes.length, sum.bytes[1] + made.length];
    if (part) continue;
    const [was, is] = [await leads(bytes), await leads(made)];
    for (const key of ['links', 'entries']) sum[key] = [sum[key][0] + was[key], sum[key][1] + is[key]];
  } catch (error) {
    sum.failed.push(`${path}: ${error.message}`);
  }
}
rmSync(work, { recursive: true });
for (const path of [...sum.failed, ...sum.worse, ...sum.different]) console.error(path);
report('documents', {
  documents: { value: sum.documents, pages: sum.pages },
  failed: { value: sum.failed.length, limit: 0 },
  worseForQpdf: { value: sum.worse.length, limit: 0 },
  differentElsewhere: { value: sum.different.length, limit: 0 },
  linksLost: { value: sum.links[0] - sum.links[1], of: sum.links[0], limit: 0 },
  contentsLost: { value: sum.entries[0] - sum.entries[1], of: sum.entries[0], limit: 0 },
  sizeRatio: { value: sum.bytes[1] / sum.bytes[0] },
});
