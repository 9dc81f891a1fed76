// Pages that nobody here wrote, for the follower: documentation that Debian ships, fetched into a folder of its own.
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { greyFrame } from '@doodla/core/follow';
import { PNG } from 'pngjs';
import { randomOf } from './screenPages.mjs';

const PACKAGES = ['debian-policy', 'developers-reference', 'debian-reference-en', 'git-doc'];
const PAGES = [
  'usr/share/doc/debian-policy/policy.html/ch-binary.html',
  'usr/share/developers-reference/pkgs.html',
  'usr/share/debian-reference/ch01.en.html',
  'usr/share/doc/git-doc/git-rebase.html',
];
/** A list and a text beside each other, each with its own scroll bar, as in mail and help programs. */
const PAIR = ['usr/share/doc/git-doc/git.html', 'usr/share/doc/git-doc/gitcore-tutorial.html'];

const HD = { width: 1280, height: 720 };
const FULL_HD = { width: 1920, height: 1080 };
const LARGE = { width: 2560, height: 1600 };

/** What is captured how: the size of the screen, that of the frames, what is done to it, how lossy it arrives. */
export const CAPTURES = [
  { name: '1:1', screen: HD, frame: HD },
  { name: '1920x1080 at 1280x720', screen: FULL_HD, frame: HD },
  { name: '2560x1600 at 1728x1080', screen: LARGE, frame: { width: 1728, height: 1080 } },
  { name: 'fixed header', screen: FULL_HD, frame: HD, header: true },
  { name: 'two scrolling parts', screen: FULL_HD, frame: HD, pair: true },
  { name: 'JPEG', screen: FULL_HD, frame: HD, loss: 'jpeg' },
  { name: 'video', screen: FULL_HD, frame: HD, loss: 'video' },
  { name: 'diagonal', screen: FULL_HD, frame: HD, wide: true },
  { name: 'zoom', screen: FULL_HD, frame: HD, zoom: true },
];

/** The folder of the unpacked packages. */
export function documentation() {
  const folder = join(tmpdir(), 'doodla-documentation');
  for (const name of PACKAGES) {
    if (existsSync(join(folder, name))) continue;
    mkdirSync(join(folder, name), { recursive: true });
    execFileSync('apt-get', ['download', name], { cwd: join(folder, name), stdio: 'ignore' });
    const deb = readdirSync(join(folder, name)).find((file) => file.endsWith('.deb'));
    execFileSync('dpkg-deb', ['-x', join(folder, name, deb), folder]);
  }
  return folder;
}

/**
 * Scrolls the pages as wheels and fingers do, and yields each step: the frames before and after, and the map from
 * one to the other (x' = scale x + dx) with the part of the frame that moved.
 */
export async function* steps(browser, capture, count) {
  const folder = documentation();
  const camera = await cameraOf(browser, capture);
  const k = capture.frame.width / capture.screen.width;
  const sources = capture.pair ? [PAIR] : PAGES.map((page) => [page]);
  for (const [n, files] of sources.entries()) {
    const page = await browser.newPage({ viewport: capture.screen });
    await open(page, folder, files, capture);
    const random = randomOf(n + 3);
    let before = await camera.take(page);
    const each = Math.ceil(count / sources.length);
    for (let i = 0; i < each; i++) {
      const motion = capture.zoom ? await zoom(page, random) : await scroll(page, random, capture, i);
      if (!motion) continue;
      const now = await camera.take(page);
      yield {
        before,
        now,
        expected: {
          scale: motion.scale ?? 1,
          dx: motion.dx * k,
          dy: motion.dy * k,
          region: scaled(motion.region, k),
        },
      };
      before = now;
    }
    await page.close();
  }
  await camera.close();
}

const scaled = (region, k) =>
  region && Object.fromEntries(Object.entries(region).map(([key, value]) => [key, value * k]));

async function open(page, folder, files, { header, wide, zoom, screen }) {
  if (files.length === 1) await page.goto(pathToFileURL(join(folder, files[0])).href);
  else {
    const frames = files.map(
      (file, i) =>
        `<iframe name="f${i}" src="${pathToFileURL(join(folder, file)).href}" style="border:0;border-right:1px solid #999;width:${i ? 70 : 30}%;height:100%"></iframe>`,
    );
    await page.goto(pathToFileURL(join(folder, files[0])).href);
    await page.setContent(`<body style="margin:0;display:flex;height:${screen.height}px">${frames.join('')}`);
    for (const frame of page.frames().slice(1)) await frame.waitForLoadState();
  }
  if (header)
    await page.addStyleTag({
      content:
        'body::before{content:"The school’s library  ·  Contents  ·  Search  ·  Help";position:fixed;z-index:99;top:0;left:0;right:0;height:74px;background:#245;color:#fff;font:28px sans-serif;padding:18px}',
    });
  if (wide) await page.addStyleTag({ content: 'body{width:3400px!important}' });
  if (zoom) await page.evaluate(() => (window.lens = { s: 1, x: 0, y: -2500 }));
  if (zoom) await page.evaluate(() => (document.body.style.transform = 'translate(0,-2500px)'));
  if (zoom)
    await page.addStyleTag({
      content:
        'html{overflow:hidden}body{position:absolute;left:0;top:0;margin:0!important;width:1900px;transform-origin:0 0}',
    });
}

async function scroll(page, random, { pair, wide }, i) {
  const far = () => Math.max(1, Math.round(500 ** random())) * (random() < 0.7 && i % 9 !== 8 ? 1 : -1);
  const [by, sideways] = [far(), wide ? Math.round(far() / 2) : 0];
  const target = pair ? page.frames()[1 + (Math.floor(i / 4) % 2)] : page.mainFrame();
  const moved = await target.evaluate(
    ([x, y]) => {
      const { window } = globalThis;
      const from = [window.scrollX, window.scrollY];
      window.scrollBy({ left: x, top: y, behavior: 'instant' });
      return { dx: from[0] - window.scrollX, dy: from[1] - window.scrollY };
    },
    [sideways, by],
  );
  if (moved.dx === 0 && moved.dy === 0) return undefined;
  const region = pair ? await (await target.frameElement()).boundingBox() : undefined;
  return { ...moved, region };
}

const ZOOMS = [0.5, 0.75, 1, 1.25, 1.5, 2, 2.5, 3, 4];

/** As a reader of PDFs enlarges (steps), or two fingers do (a little at a time), about any point. */
async function zoom(page, random) {
  const pick = [random(), random(), random(), random()];
  return page.evaluate(
    ({ pick, zooms }) => {
      const old = window.lens;
      const inSteps = pick[0] < 0.5;
      const nearest = zooms.findIndex((z) => z >= old.s - 0.01);
      const next = Math.max(0, Math.min(zooms.length - 1, nearest + (pick[1] < 0.5 ? -1 : 1)));
      const factor = inSteps ? zooms[next] / old.s : 0.85 + 0.35 * pick[1];
      const s = Math.max(0.5, Math.min(4, old.s * factor));
      const f = s / old.s;
      const [px, py] = [innerWidth * (0.2 + 0.6 * pick[2]), innerHeight * (0.2 + 0.6 * pick[3])];
      let [x, y] = [px + f * (old.x - px), py + f * (old.y - py)];
      // The page stays where there is something to see.
      x = Math.min(0, Math.max(0.4 * innerWidth - 900 * s, x));
      y = Math.min(0, y);
      window.lens = { s, x, y };
      document.body.style.transform = `translate(${x}px,${y}px) scale(${s})`;
      const motion = { scale: f, dx: x - f * old.x, dy: y - f * old.y };
      return Math.abs(f - 1) < 1e-3 && Math.hypot(motion.dx, motion.dy) < 1 ? undefined : motion;
    },
    { pick, zooms: ZOOMS },
  );
}

/** Takes what a page shows as a captured screen arrives: scaled by the browser, and as lossy as it is sent. */
async function cameraOf(browser, { screen, frame, loss }) {
  const lab = await browser.newPage();
  const isPlain = screen.width === frame.width && !loss;
  return {
    async take(page) {
      const shot = await page.screenshot();
      if (isPlain) return read(shot);
      const url = await lab.evaluate(develop, {
        shot: `data:image/png;base64,${shot.toString('base64')}`,
        frame,
        loss,
      });
      return read(Buffer.from(url.split(',')[1], 'base64'));
    },
    close: () => lab.close(),
  };
}

function read(bytes) {
  const png = PNG.sync.read(bytes);
  return greyFrame(new Uint8ClampedArray(png.data), png.width, png.height);
}

/** Runs in a browser. A loss like that of video is two poor JPEGs on top of each other, at another raster. */
async function develop({ shot, frame, loss }) {
  const load = async (src) => {
    const image = new window.Image();
    image.src = src;
    await image.decode();
    return image;
  };
  const canvas = Object.assign(document.createElement('canvas'), frame);
  const ctx = canvas.getContext('2d');
  ctx.drawImage(await load(shot), 0, 0, frame.width, frame.height);
  if (loss === 'jpeg') ctx.drawImage(await load(canvas.toDataURL('image/jpeg', 0.7)), 0, 0);
  if (loss === 'video') {
    ctx.drawImage(await load(canvas.toDataURL('image/webp', 0.5)), 0, 0);
    const rough = Object.assign(document.createElement('canvas'), {
      width: frame.width + 5,
      height: frame.height + 3,
    });
    rough.getContext('2d').drawImage(canvas, 5, 3);
    ctx.drawImage(await load(rough.toDataURL('image/jpeg', 0.5)), -5, -3);
  }
  return canvas.toDataURL();
}
