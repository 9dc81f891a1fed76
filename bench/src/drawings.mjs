// Clean drawings: whether what a hand draws roughly is found again among twelve, how long that takes, and how it is with drawings of
// the same things by others. One line a part.
import { DrawingMatcher } from '@doodla/core/drawings';
import { readSvg } from '@doodla/core/formats';
import { createRequire } from 'node:module';
import { seeded } from '../../core/test/hand/random.mjs';
import { redrawn } from '../../core/test/hand/redrawn.mjs';
import { linesOfIcon } from '../../scripts/iconLines.mjs';
import { lineDrawings } from '../../scripts/lineDrawings.mjs';
import { median, percentile, report } from './report.mjs';

const [SEED, PICTURES, EACH] = [700, 100, 4];
const OFFERED = 12;

const share = (part, of) => Math.round((10_000 * part) / of) / 10_000;
const rounded = (value) => Math.round(100 * value) / 100;

const drawings = lineDrawings(readSvg);
const started = performance.now();
const matcher = new DrawingMatcher(drawings);
const readyMs = performance.now() - started;

/** How often the right thing is first and among those offered, and how long each took. */
function found(asked) {
  const counts = { first: 0, among: 0, times: [] };
  for (const { id, strokes } of asked) {
    const before = performance.now();
    const ids = matcher.best(strokes, OFFERED).map((match) => match.id);
    counts.times.push(performance.now() - before);
    if (ids[0] === id) counts.first += 1;
    if (ids.includes(id)) counts.among += 1;
  }
  return counts;
}

function redrawings() {
  const random = seeded(SEED);
  const rest = [...drawings];
  const chosen = Array.from({ length: PICTURES }, () => rest.splice(random.whole(0, rest.length - 1), 1)[0]);
  return chosen.flatMap(({ id, lines }, i) =>
    Array.from({ length: EACH }, (_, n) => {
      const hand = seeded(SEED + 1 + i * EACH + n);
      return { id, strokes: redrawn(lines, hand.between(120, 400), hand) };
    }),
  );
}

/** The same things as another set has them (Tabler icons, MIT). */
function byOthers() {
  const { icons } = createRequire(import.meta.url)('@iconify-json/tabler/icons.json');
  return drawings.flatMap(({ id }, i) => {
    const lines = linesOfIcon(icons[id]?.body ?? '', readSvg);
    return lines.length > 0 ? [{ id, strokes: redrawn(lines, 250, seeded(SEED + i)) }] : [];
  });
}

const own = found(redrawings());
report('clean drawing: drawn roughly', {
  seed: { value: SEED },
  drawings: { value: drawings.length },
  drawn: { value: own.times.length },
  notFirst: { value: share(own.times.length - own.first, own.times.length) },
  notAmongTwelve: { value: share(own.times.length - own.among, own.times.length), limit: 0.2 },
  readyMs: { value: rounded(readyMs) },
  medianMs: { value: rounded(median(own.times)) },
  p99Ms: { value: rounded(percentile(own.times, 0.99)), limit: 100 },
});
const others = found(byOthers());
report('clean drawing: drawn roughly after another set', {
  drawn: { value: others.times.length },
  notFirst: { value: share(others.times.length - others.first, others.times.length) },
  notAmongTwelve: { value: share(others.times.length - others.among, others.times.length) },
});
