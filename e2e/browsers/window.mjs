// What a lesson needs of a window, on top of what each browser's driver gives: `goto`, `run` (a function inside the
// page), `press`, `type`, `drag` and `click` (places in the window, CSS pixels).
import { setTimeout as wait } from 'node:timers/promises';

const PATIENCE_MS = 60_000;

/** Waits until a function inside the page gives something; throws with `what` was waited for. */
export async function until(window, what, work, ...values) {
  const end = Date.now() + PATIENCE_MS;
  for (;;) {
    const found = await window.run(work, ...values).catch((error) => {
      // A page that is being left cannot answer.
      if (Date.now() > end) throw error;
    });
    if (found) return found;
    if (Date.now() > end) throw new Error(`waited for: ${what}`);
    await wait(100);
  }
}

/** Presses the control of a name, a regular expression, with the pointer. */
export async function press(window, name) {
  const [x, y] = await until(window, `a control called ${name}`, placeOf, name);
  await window.click(x, y);
}

export const has = (window, name) => window.run(placeOf, name);

/** Types into the field that has the focus or is named. */
export async function fill(window, field, text) {
  await until(
    window,
    `the field ${field}`,
    (name) => {
      const input = document.querySelector(`input[name=${name}]`);
      input?.focus();
      input?.select();
      return Boolean(input);
    },
    field,
  );
  await window.type(text);
}

/** Draws through places on the page, page units. */
export async function draw(window, points) {
  const { x, y, scale } = await until(window, 'the page', () => globalThis.doodla?.stageState?.());
  await window.drag(points.map(([px, py]) => [x + px * scale, y + py * scale]));
}

export const marks = (window) => window.run(() => globalThis.doodla.stageState().marks.length);

export const untilMarks = (window, count) =>
  until(
    window,
    `${count} marks`,
    (wanted) => globalThis.doodla?.stageState?.().marks.length === wanted,
    count,
  );

/** Where the middle of a control is; undefined while it is not in sight. Runs inside the page. */
function placeOf(name) {
  const wanted = new RegExp(name);
  const controls = document.querySelectorAll(
    'button, a[href], [role=menuitem], [role=menuitemradio], summary',
  );
  const shown = [...controls].filter((control) => {
    const { width, height } = control.getBoundingClientRect();
    const said = control.getAttribute('aria-label') ?? control.textContent.trim();
    return width > 2 && height > 2 && !control.disabled && wanted.test(said);
  });
  shown.at(-1)?.scrollIntoView({ block: 'nearest' });
  const box = shown.at(-1)?.getBoundingClientRect();
  if (!box) return undefined;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  // A panel that is not in its place yet is outside.
  return x > 0 && y > 0 && x < innerWidth && y < innerHeight ? [x, y] : undefined;
}
