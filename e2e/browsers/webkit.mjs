// WebKitGTK's small browser, driven by its own driver, on a screen that is only in memory.
import { spawn } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { Builder, Capabilities, Key, Origin } from 'selenium-webdriver';

const DRIVER = process.env.WEBKIT_DRIVER ?? '/usr/bin/WebKitWebDriver';
const PORT = 4695;
const DISPLAY = ':97';

export const name = 'WebKitGTK';
export const binary = DRIVER;

/** Where Debian keeps the browser that comes with the library, on any architecture. */
function miniBrowser() {
  const [library] = readdirSync('/usr/lib', { recursive: false })
    .map((folder) => `/usr/lib/${folder}/webkit2gtk-4.1/MiniBrowser`)
    .filter((path) => exists(path));
  return library;
}

function exists(path) {
  try {
    readdirSync(path.replace(/\/MiniBrowser$/, ''));
    return true;
  } catch {
    // Another architecture's folder.
    return false;
  }
}

/** Starts the browser. `open` gives a window of its own. */
export async function start() {
  const env = { ...process.env, DISPLAY, WEBKIT_DISABLE_COMPOSITING_MODE: '1', NO_AT_BRIDGE: '1' };
  const screen = spawn('Xvfb', [DISPLAY, '-screen', '0', '2000x1400x24'], { stdio: 'ignore' });
  const driver = spawn(DRIVER, [`--port=${PORT}`], { env, stdio: 'ignore' });
  await answering(`http://127.0.0.1:${PORT}/status`);
  const wanted = new Capabilities({
    browserName: 'MiniBrowser',
    'webkitgtk:browserOptions': { binary: miniBrowser(), args: ['--automation'] },
  });
  const session = await new Builder()
    .usingServer(`http://127.0.0.1:${PORT}`)
    .withCapabilities(wanted)
    .build();
  await session.manage().setTimeouts({ script: 60_000, pageLoad: 60_000 });
  return {
    version: (await session.getCapabilities()).get('browserVersion'),
    open: async (size) => windowOf(session, size),
    async close() {
      await session.quit();
      driver.kill();
      screen.kill();
    },
  };
}

async function answering(url) {
  for (let tries = 0; tries < 100; tries++) {
    if (
      await fetch(url).then(
        ({ ok }) => ok,
        () => false,
      )
    )
      return;
    await wait(100);
  }
  throw new Error('the driver of WebKit did not start');
}

async function windowOf(session, { width, height }) {
  await session.switchTo().newWindow('window');
  const own = await session.getWindowHandle();
  await session.manage().window().setRect({ width, height, x: 0, y: 0 });
  // The driver works on one window at a time.
  const here = async () => session.switchTo().window(own);
  const at = ([x, y]) => ({ x: Math.round(x), y: Math.round(y), origin: Origin.VIEWPORT, duration: 20 });
  return {
    async goto(url) {
      await here();
      await session.get(url);
    },
    async run(work, ...values) {
      await here();
      const { error, result } = await session.executeAsyncScript(
        `const done = arguments[arguments.length - 1];
         Promise.resolve((${work}).apply(null, [...arguments].slice(0, -1))).then(
           (result) => done({ result }), (error) => done({ error: String(error) }));`,
        ...values,
      );
      if (error) throw new Error(error);
      return result;
    },
    async press(key) {
      await here();
      await session
        .actions()
        .sendKeys(KEYS[key] ?? key)
        .perform();
    },
    async type(text) {
      await here();
      await session.actions().sendKeys(text).perform();
    },
    async drag([first, ...rest]) {
      await here();
      let actions = session.actions({ async: false }).move(at(first)).press();
      for (const point of rest) actions = actions.move(at(point));
      await actions.release().perform();
    },
    async click(x, y) {
      await here();
      await session
        .actions()
        .move(at([x, y]))
        .click()
        .perform();
    },
  };
}

const KEYS = { Escape: Key.ESCAPE, PageDown: Key.PAGE_DOWN, Enter: Key.ENTER };
