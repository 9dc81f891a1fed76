// Firefox, driven by WebDriver BiDi.
import puppeteer from 'puppeteer-core';

const BINARY = process.env.FIREFOX ?? '/usr/bin/firefox-esr';

export const name = 'Firefox';
export const binary = BINARY;

/** Starts the browser. `open` gives a window of its own, as `window.mjs` describes it. */
export async function start() {
  const browser = await puppeteer.launch({
    browser: 'firefox',
    executablePath: BINARY,
    headless: true,
    // A practice screen is drawn here, and the microphone hums; nobody is asked for real ones.
    extraPrefsFirefox: { 'media.navigator.permission.disabled': true, 'media.navigator.streams.fake': true },
  });
  return {
    version: await browser.version(),
    open: async (size) => windowOf(await browser.newPage({ type: 'window' }), size),
    close: () => browser.close(),
  };
}

async function windowOf(page, { width, height }) {
  await page.setViewport({ width, height });
  return {
    goto: (url) => page.goto(url),
    run: (work, ...values) => page.evaluate(work, ...values),
    // A person writes in the window that is in front; what is typed behind it is lost.
    async press(key) {
      await page.bringToFront();
      await page.keyboard.press(key);
    },
    async type(text) {
      await page.bringToFront();
      await page.keyboard.type(text);
    },
    async drag([first, ...rest]) {
      await page.mouse.move(...first);
      await page.mouse.down();
      for (const point of rest) await page.mouse.move(...point);
      await page.mouse.up();
    },
    click: (x, y) => page.mouse.click(x, y),
  };
}
