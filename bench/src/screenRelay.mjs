import { PDFDocument } from '@cantoo/pdf-lib';
import { PNG } from 'pngjs';
import { ssim } from 'ssim.js';
import { percentile } from './report.mjs';

const STILL_MS = 12_000;
const SCROLL_MS = 8000;

/** Shows the practice screen from one browser to another: delay, bytes while still and while scrolling, likeness. */
export async function relay(context, browser) {
  const teacher = await context.newPage();
  await openClass(teacher);
  const code = (await teacher.getByTestId('join-code').innerText()).replace(/\s/g, '');
  await teacher.getByRole('button', { name: 'Close' }).click();
  const student = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await student.goto(new URL(`/join/${code}`, teacher.url()).href);
  await student.getByLabel('Your name').fill('Wren');
  await student.getByRole('button', { name: 'Go in' }).click();
  await student.locator('[data-testid=stage][data-shown=true]').waitFor();
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A screen to practise with' }).click();
  await student.waitForFunction(() => window.doodla.screen.state.get()?.certain);
  await student.waitForTimeout(2000);
  const received = () => student.evaluate(() => window.doodla.screen.received);
  const { bytes: before } = await received();
  await student.waitForTimeout(STILL_MS);
  const { bytes: afterStill } = await received();
  const steps = SCROLL_MS / 100;
  for (let i = 0; i < steps; i++) {
    await teacher.evaluate((down) => window.doodla.source().scrollBy(down ? 30 : -30), i % 60 < 40);
    await teacher.waitForTimeout(100);
  }
  const { bytes: afterScroll, delays } = await received();
  await student.waitForTimeout(2500);
  const picture = async (page, script) =>
    PNG.sync.read(Buffer.from((await page.evaluate(script)).split(',')[1], 'base64'));
  const source = await picture(teacher, () => window.doodla.screen.canvas.toDataURL());
  const seen = await picture(student, () => window.doodla.screen.canvas.toDataURL());
  const plain = ({ data, width, height }) => ({ data: new Uint8ClampedArray(data), width, height });
  return {
    stillKBs: (afterStill - before) / STILL_MS,
    scrollKBs: (afterScroll - afterStill) / SCROLL_MS,
    delay95Ms: percentile(delays, 0.95),
    settledSsim: ssim(plain(source), plain(seen)).mssim,
  };
}

async function openClass(page) {
  const doc = await PDFDocument.create();
  doc.addPage([595.28, 841.89]);
  await page.goto('/');
  await page
    .getByLabel('Choose documents')
    .setInputFiles({ name: 'page.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await doc.save()) });
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  await page.getByRole('button', { name: 'Start class' }).click();
}
