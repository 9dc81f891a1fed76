import { median } from './report.mjs';
import { pageOf } from './screenPages.mjs';

const RUNS = 5;

/** Turning to a copy of a page about three screens long, against the browser's own load of the same file in a frame. */
export async function openWebPage(context) {
  const page = await context.newPage();
  await page.goto('/');
  const lessons = await (await context.request.get('/api/lessons')).json();
  const lesson = lessons[0].id;
  await context.request.post(`/api/lessons/${lesson}/webpages/file`, {
    multipart: {
      file: { name: 'page.html', mimeType: 'text/html', buffer: Buffer.from(pageOf('text', 3, 14)) },
    },
  });
  const ours = [];
  let html = '';
  for (let i = 0; i < RUNS; i++) {
    await page.goto(`/lesson/${lesson}`);
    await page.getByRole('button', { name: 'Previous page' }).waitFor();
    await page.keyboard.press('PageUp');
    await page.locator('[data-testid=stage][data-shown=true]').waitFor();
    ours.push(
      await page.evaluate(
        () =>
          new Promise((resolve) => {
            const started = performance.now();
            window.dispatchEvent(new window.KeyboardEvent('keydown', { key: 'PageDown', bubbles: true }));
            const look = () => {
              const frame = document.querySelector('iframe[title="Web page"]');
              const there = frame?.contentDocument?.querySelector('p');
              const stage = document.querySelector('[data-testid=stage]');
              if (there && stage.dataset.shown === 'true') resolve(performance.now() - started);
              else requestAnimationFrame(look);
            };
            look();
          }),
      ),
    );
    html = await page.locator('iframe[title="Web page"]').getAttribute('srcdoc');
  }
  const bare = [];
  for (let i = 0; i < RUNS; i++) {
    bare.push(
      await page.evaluate(
        (text) =>
          new Promise((resolve) => {
            const frame = document.createElement('iframe');
            const started = performance.now();
            frame.addEventListener('load', () => {
              requestAnimationFrame(() => {
                resolve(performance.now() - started);
                frame.remove();
              });
            });
            frame.srcdoc = text;
            document.body.append(frame);
          }),
        html,
      ),
    );
  }
  await page.close();
  return { ours: median(ours), bare: median(bare) };
}
