// Finding among much: searches over 2,000 pages of text, beside the simplest question that the same server answers; and
// the start page with 500 lessons, beside the one without any.
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { withBrowser } from './harness.mjs';
import { percentile, report } from './report.mjs';
import { School } from './school.mjs';

const DOCUMENTS = 4;
const PAGES = 500;
const WORDS = 90;
const SEARCHES = 200;
const LESSONS = 500;
const OPENINGS = 5;

/** Made-up words of two or three syllables, 8,000 of them, the same in every run. */
function wordOf(n) {
  const parts = [
    'ba',
    'lo',
    'mi',
    'ren',
    'tu',
    'sok',
    'pel',
    'dar',
    'vin',
    'qua',
    'hes',
    'jot',
    'fam',
    'gri',
    'zul',
    'woy',
    'nic',
    'kep',
    'ulm',
    'ost',
  ];
  const m = n % 8000;
  return parts[m % 20] + parts[Math.floor(m / 20) % 20] + parts[Math.floor(m / 400)];
}

/** A page's words follow from its number: common ones often, others seldom (Zipf's law). */
function wordsOf(page) {
  let state = page * 2654435761 + 1;
  return Array.from({ length: WORDS }, () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return wordOf(Math.floor(8000 ** (state / 2147483648)));
  });
}

async function documentFrom(first) {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let page = first; page < first + PAGES; page++) {
    const sheet = doc.addPage([600, 800]);
    const words = [...wordsOf(page), `page${page}`];
    for (let line = 0; line * 8 < words.length; line++)
      sheet.drawText(words.slice(line * 8, line * 8 + 8).join(' '), {
        x: 40,
        y: 740 - line * 22,
        size: 12,
        font,
      });
  }
  return doc.save();
}

async function upload(school, bytes, name) {
  const form = new FormData();
  form.append('file', new Blob([bytes]), name);
  await (await school.send('POST', '/api/lessons', form)).text();
}

const ask = async (school, q) => (await school.send('GET', `/api/search?q=${encodeURIComponent(q)}`)).json();

async function timed(count, what) {
  const times = [];
  for (let i = 0; i < count; i++) {
    const started = performance.now();
    await what(i);
    times.push(performance.now() - started);
  }
  return times;
}

async function searching() {
  const school = new School();
  await school.start();
  try {
    for (let d = 0; d < DOCUMENTS; d++) await upload(school, await documentFrom(d * PAGES), `words-${d}.pdf`);
    const last = `page${DOCUMENTS * PAGES - 1}`;
    while ((await ask(school, last)).pages.length === 0)
      await new Promise((resolve) => setTimeout(resolve, 500));
    let found = 0;
    const questions = (i) =>
      [wordOf(i * 7), wordOf(i).slice(0, 3), `${wordOf(i % 20)} ${wordOf((i % 20) + 1)}`][i % 3];
    const times = await timed(SEARCHES, async (i) => {
      found += (await ask(school, questions(i))).pages.length;
    });
    const plain = await timed(SEARCHES, async () => (await school.send('GET', '/api/me')).json());
    return { times, plain, found };
  } finally {
    await school.remove();
  }
}

/** Milliseconds from the start of loading until the start page shows so many lessons, once the browser has the program. */
const opening = (lessons) =>
  withBrowser(async (context) => {
    for (let i = 0; i < lessons; i++) {
      const made = await (await context.request.post('/api/lessons/blank', { data: { sheet: null } })).json();
      const what = { title: `${wordOf(i)} ${wordOf(i * 3)}`, tags: [wordOf(i % 12)] };
      await context.request.patch(`/api/lessons/${made.id}`, { data: what });
    }
    const page = await context.newPage();
    const wanted = lessons > 0 ? 'li h2' : 'main p';
    await page.addInitScript((selector) => {
      new window.MutationObserver(() => {
        if (document.querySelector(selector)) window.shownAt ??= performance.now();
      }).observe(document, { childList: true, subtree: true });
    }, wanted);
    const times = [];
    for (let i = 0; i <= OPENINGS; i++) {
      await page.goto('/', { waitUntil: 'commit' });
      await page.locator(wanted).first().waitFor();
      times.push(await page.evaluate(() => window.shownAt));
    }
    // The first one fetches the program.
    return percentile(times.slice(1), 0.5);
  });

const { times, plain, found } = await searching();
const [full, empty] = [await opening(LESSONS), await opening(0)];
report('finding', {
  search95Ms: { value: percentile(times, 0.95), limit: 50, baseline: percentile(plain, 0.95) },
  found: { value: found },
  startPageMs: { value: full, limit: 1000, baseline: empty },
  startPageRatio: { value: full / empty, limit: 2 },
});
