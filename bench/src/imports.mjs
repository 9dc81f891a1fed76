// What writing costs while documents come in: round trips of strokes in a quiet server, and beside imports of
// every kind, honest and hostile, that go on all the while.
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { packPoints } from '@doodla/core';
import { percentile, report } from './report.mjs';
import { aStroke, handPoints, School } from './school.mjs';

const STROKES = 400;

async function longPdf() {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let i = 0; i < 300; i++) {
    const page = doc.addPage([600, 800]);
    for (let line = 0; line < 50; line++)
      page.drawText(`Page ${i + 1}, line ${line + 1}: a beam that bends is pulled below`, {
        x: 50,
        y: 740 - line * 14,
        size: 11,
        font,
      });
  }
  return doc.save();
}

const markup = '<p>Bridges</p>';
const files = [
  { name: 'long.pdf', bytes: await longPdf() },
  { name: 'emphasis.md', bytes: Buffer.from('*a **b '.repeat(30_000)) },
  { name: 'text.md', bytes: Buffer.from('# Bridges\n\nA beam *bends*.\n\n'.repeat(2_000)) },
  { name: 'article.html', bytes: Buffer.from('<p>A beam that bends is pulled below.</p>'.repeat(60_000)) },
  {
    name: 'style.html',
    bytes: Buffer.from(`<style>a { background: url(${' '.repeat(200_000)} }</style>${markup}`),
  },
  { name: 'deep.html', bytes: Buffer.from('<div>'.repeat(20_000) + markup) },
];

/** Milliseconds of each round trip. */
async function write({ teacher, log, pages, author }, name) {
  const times = [];
  for (let i = 0; i < STROKES; i++) {
    const mark = aStroke(pages[0], author, null, packPoints(handPoints(60, i)));
    const started = performance.now();
    await teacher.ask('submit', { log, operation: { id: `${name}-${i}`, changes: [{ do: 'add', mark }] } });
    times.push(performance.now() - started);
    await new Promise((resolve) => setTimeout(resolve, 18));
  }
  return times;
}

/** Brings all files in, again and again until it is told to stop; says how many were answered. */
async function importAll(lesson, files, state) {
  while (!state.stop) {
    for (const { name, bytes } of files) {
      const form = new FormData();
      form.append('file', new Blob([bytes]), name);
      const page = name.endsWith('.html');
      const to = page ? `/api/lessons/${lesson}/webpages/file` : '/api/lessons';
      const answer = await school.send('POST', to, form);
      await answer.text();
      state.answered += 1;
      if (state.stop) return;
    }
  }
}

const school = new School();
try {
  await school.start();
  const room = await school.startClass();
  await write(room, 'warm-up');
  const quiet = await write(room, 'quiet');
  const state = { stop: false, answered: 0 };
  const importing = Promise.all([
    importAll(room.lesson, files, state),
    importAll(room.lesson, files.toReversed(), state),
  ]);
  const beside = await write(room, 'beside');
  state.stop = true;
  await importing;
  const [value, baseline] = [percentile(beside, 0.95), percentile(quiet, 0.95)];
  report('imports', {
    stroke95Ms: { value, baseline },
    strokeRatio: { value: value / baseline, limit: 2 },
    longestMs: { value: Math.max(...beside), baseline: Math.max(...quiet) },
    imports: { value: state.answered },
  });
} finally {
  await school.remove();
}
process.exit();
