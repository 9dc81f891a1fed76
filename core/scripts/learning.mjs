// What letters.mjs and symbols.mjs share: samples of glyphs as somebody else might write them, and how a net of two layers learns them.
import { writeFileSync } from 'node:fs';
import { boxOfGlyph, FEATURES } from '../dist/handwriting/features.js';
import { dense } from '../test/hand/hand.mjs';

/** A glyph as somebody else might write it; units of 1000 to the em, y up in, y down out. */
export function distorted(lines, random) {
  const [shear, aspect] = [random.between(-0.25, 0.35), Math.exp(random.normal(0.22))];
  const [turn, amount] = [random.normal(0.08), random.between(0, 90)];
  const waves = Array.from({ length: 4 }, () => ({
    x: (random.between(0.5, 3) * 6.28) / 1000,
    y: (random.between(0.5, 3) * 6.28) / 1000,
    phase: random.between(0, 6.28),
    height: random.normal(0.5) * amount,
  }));
  const wave = ({ x, y, phase, height }, u, v) => height * Math.sin(x * u + y * v + phase);
  return lines.map((line) => {
    const points = trimmed(rounded(dense(line, 25), Math.floor(random.between(0, 4))), random);
    const [dx, dy] = [random.normal(15), random.normal(15)];
    return points.flatMap(([u0, v0]) => {
      const [u1, v1] = [u0 + dx, v0 + dy];
      const u = u1 + wave(waves[0], u1, v1) + wave(waves[1], u1, 0);
      const v = v1 + wave(waves[2], u1, v1) + wave(waves[3], 0, v1);
      const [x, y] = [(u + shear * v) * aspect, -v];
      return [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)];
    });
  });
}

function rounded(points, half) {
  return points.map((_, i) => {
    const span = Math.min(half, i, points.length - 1 - i);
    let [x, y] = [0, 0];
    for (let k = i - span; k <= i + span; k++) [x, y] = [x + points[k][0], y + points[k][1]];
    return [x / (2 * span + 1), y / (2 * span + 1)];
  });
}

function trimmed(points, random) {
  const [from, to] = [0, 0].map(() => Math.max(0, Math.round(random.normal(1))));
  return points.length > from + to + 4 ? points.slice(from, points.length - to) : points;
}

/** Two layers, learned by going down the slope one sample at a time (Rumelhart, Hinton, Williams 1986). */
export function learned({ inputs, wanted }, { classes, hidden: HIDDEN, epochs: EPOCHS, random }) {
  const CLASSES = classes;
  const start = (count, spread) => Float32Array.from({ length: count }, () => random.normal(spread));
  const first = start(HIDDEN * FEATURES, 2 * Math.sqrt(2 / FEATURES));
  const second = start(CLASSES * HIDDEN, Math.sqrt(2 / HIDDEN));
  const [firstBias, secondBias] = [new Float32Array(HIDDEN), new Float32Array(CLASSES)];
  const [hidden, out, back] = [new Float32Array(HIDDEN), new Float32Array(CLASSES), new Float32Array(HIDDEN)];
  const order = inputs.map((_, i) => i);
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    const rate = 0.05 * 0.78 ** epoch;
    for (let i = order.length - 1; i > 0; i--) {
      const k = Math.floor(random.next() * (i + 1));
      [order[i], order[k]] = [order[k], order[i]];
    }
    let loss = 0;
    for (const sample of order) {
      const input = inputs[sample];
      for (let j = 0; j < HIDDEN; j++) {
        let sum = firstBias[j];
        for (let i = 0; i < FEATURES; i++) sum += first[j * FEATURES + i] * input[i];
        hidden[j] = Math.max(0, sum);
      }
      let most = -Infinity;
      for (let c = 0; c < CLASSES; c++) {
        let sum = secondBias[c];
        for (let j = 0; j < HIDDEN; j++) sum += second[c * HIDDEN + j] * hidden[j];
        out[c] = sum;
        most = Math.max(most, sum);
      }
      let total = 0;
      for (let c = 0; c < CLASSES; c++) total += out[c] = Math.exp(out[c] - most);
      loss -= Math.log(out[wanted[sample]] / total + 1e-9);
      back.fill(0);
      for (let c = 0; c < CLASSES; c++) {
        const slope = out[c] / total - (c === wanted[sample] ? 1 : 0);
        if (Math.abs(slope) < 1e-4) continue;
        for (let j = 0; j < HIDDEN; j++) {
          back[j] += slope * second[c * HIDDEN + j];
          second[c * HIDDEN + j] -= rate * slope * hidden[j];
        }
        secondBias[c] -= rate * slope;
      }
      for (let j = 0; j < HIDDEN; j++) {
        if (hidden[j] <= 0) continue;
        for (let i = 0; i < FEATURES; i++) first[j * FEATURES + i] -= rate * back[j] * input[i];
        firstBias[j] -= rate * back[j];
      }
    }
    console.log(`${epoch + 1} of ${EPOCHS}: ${(loss / inputs.length).toFixed(3)}`);
  }
  return { first, firstBias, second, secondBias };
}

/** Where characters stand, and how broad they are: bottom and top over the base line, width; in heights of a small x, means over the faces. */
export function standing(characters, faces) {
  return characters.map((character) => {
    const heights = faces.flatMap((face) => {
      const [x, glyph] = [face.get('x'), face.get(character)];
      if (!glyph || glyph.lines.length === 0) return [];
      const unit = boxOfGlyph(x.lines.map((line) => line.flat()));
      const box = boxOfGlyph(glyph.lines.map((line) => line.flat()));
      const over = (value) => (value - unit.top) / unit.height;
      return [[over(box.top), over(box.top + box.height), box.width / unit.height]];
    });
    const mean = (n) => heights.reduce((sum, each) => sum + each[n], 0) / heights.length;
    return [mean(0), mean(1), mean(2)].map((value) => Math.round(value * 100) / 100);
  });
}

/** Numbers as bytes of text, each row with a scale of its own. */
function packed(weights, width) {
  const scales = [];
  const bytes = new Int8Array(weights.length);
  for (let row = 0; row * width < weights.length; row++) {
    const part = weights.subarray(row * width, (row + 1) * width);
    const scale = Math.max(...part.map(Math.abs)) / 127 || 1;
    scales.push(Number(scale.toPrecision(4)));
    part.forEach((value, i) => (bytes[row * width + i] = Math.round(value / scale)));
  }
  return { scales, bytes: Buffer.from(bytes.buffer).toString('base64') };
}

/** Writes what was learned where `LetterNet` reads it. */
export function keep(net, { characters, faces, hidden }, file) {
  const short = (values) => [...values].map((value) => Number(value.toPrecision(4)));
  const kept = {
    characters: characters.join(''),
    standing: standing(characters, faces),
    hidden,
    first: packed(net.first, FEATURES),
    firstBias: short(net.firstBias),
    second: packed(net.second, hidden),
    secondBias: short(net.secondBias),
  };
  writeFileSync(new URL(file, import.meta.url), `${JSON.stringify(kept)}\n`);
}

/** Parts of two glyphs beside each other, or both: what a wrong cut leaves. Undefined where one of them has no lines. */
export function pairOf(a, b, random) {
  if (!a || !b || a.lines.length === 0 || b.lines.length === 0) return undefined;
  const apart = a.width * random.between(0.7, 1.05);
  const beside = b.lines.map((line) => line.map(([x, y]) => [x + apart, y]));
  const half = (lines, last) =>
    lines.map((line) => {
      const points = dense(line, 25);
      const middle = Math.floor(points.length * random.between(0.35, 0.65));
      return last ? points.slice(middle) : points.slice(0, middle + 1);
    });
  const lines = random.chance(0.6)
    ? [...a.lines, ...beside]
    : [...half(a.lines, true), ...half(beside, false)];
  return lines.filter(({ length }) => length > 1);
}
