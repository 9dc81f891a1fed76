import { FEATURES } from './features.js';

/** Numbers as bytes in base64, each row with a scale of its own. */
interface Packed {
  scales: readonly number[];
  bytes: string;
}

/** What was learned of written characters (`scripts/letters.mjs`). */
export interface LearnedLetters {
  characters: string;
  /** Where each stands: bottom and top over the base line, and its width, in heights of a small x. */
  standing: readonly (readonly number[])[];
  hidden: number;
  first: Packed;
  firstBias: readonly number[];
  second: Packed;
  secondBias: readonly number[];
}

/** What a glyph was judged to be: the cost (negative logarithm of the probability) of each character, and of being none. */
export interface Judged {
  costs: Float32Array;
  none: number;
  /** The likeliest characters by their numbers. */
  likely: readonly number[];
  /** By which samples of one's own hand are compared. */
  impression: Float32Array;
}

/** A sample of somebody's own hand. */
export interface TaughtSample {
  character: string;
  impression: Float32Array;
}

/** How much samples of one's own count beside what was learned of all, and how near they have to be. */
const OWN = { share: 0.75, near: 0.16 };
/** So many characters of a glyph are worth a thought. */
const LIKELY = 14;
/** Nothing is less likely than that. */
const LEAST = 1e-6;

/** Tells written characters apart, whatever their size and place. */
export class LetterNet {
  readonly characters: readonly string[];
  readonly standing: LearnedLetters['standing'];
  private readonly first: Float32Array;
  private readonly second: Float32Array;
  private taught: readonly TaughtSample[] = [];

  constructor(private readonly learned: LearnedLetters) {
    this.characters = [...learned.characters];
    this.standing = learned.standing;
    this.first = unpacked(learned.first, FEATURES);
    this.second = unpacked(learned.second, learned.hidden);
  }

  /** Counts samples of one's own hand from now on, instead of those before. */
  teach(samples: readonly TaughtSample[]): void {
    this.taught = samples;
  }

  judge(features: Float32Array): Judged {
    const { hidden } = this.learned;
    const impression = layer(this.first, this.learned.firstBias, features);
    for (let j = 0; j < hidden; j++) impression[j] = Math.max(0, impression[j]!);
    const out = layer(this.second, this.learned.secondBias, impression);
    const most = out.reduce((a, b) => Math.max(a, b));
    let total = 0;
    for (let c = 0; c < out.length; c++) total += out[c] = Math.exp(out[c]! - most);
    for (let c = 0; c < out.length; c++) out[c]! /= total;
    ofLengthOne(impression);
    this.own(out, impression);
    const costs = out.map((part) => -Math.log(Math.max(LEAST, part)));
    const own = costs.subarray(0, this.characters.length);
    return { costs: own, none: costs.at(-1)!, likely: least(own, LIKELY), impression };
  }

  /** Moves likelihoods towards characters of which there are like samples. */
  private own(likely: Float32Array, impression: Float32Array): void {
    if (this.taught.length === 0) return;
    const nearness = new Float32Array(likely.length);
    let total = 0;
    for (const sample of this.taught) {
      const c = this.characters.indexOf(sample.character);
      if (c < 0) continue;
      let like = 0;
      for (let j = 0; j < impression.length; j++) like += impression[j]! * sample.impression[j]!;
      const near = Math.exp(-(1 - like) / (OWN.near * OWN.near));
      if (near > nearness[c]!) {
        total += near - nearness[c]!;
        nearness[c] = near;
      }
    }
    const share = OWN.share * Math.min(1, total * 4);
    if (share <= 0) return;
    for (let c = 0; c < likely.length; c++)
      likely[c] = (1 - share) * likely[c]! + (share * nearness[c]!) / total;
  }
}

/** The numbers of the least values. */
function least(values: Float32Array, count: number): number[] {
  const numbers = Array.from(values, (_, i) => i);
  return numbers.sort((a, b) => values[a]! - values[b]!).slice(0, count);
}

function layer(weights: Float32Array, bias: readonly number[], input: Float32Array): Float32Array {
  const width = input.length;
  const out = new Float32Array(bias.length);
  for (let j = 0; j < out.length; j++) {
    let sum = bias[j]!;
    const row = j * width;
    for (let i = 0; i < width; i++) sum += weights[row + i]! * input[i]!;
    out[j] = sum;
  }
  return out;
}

function ofLengthOne(vector: Float32Array): void {
  let sum = 0;
  for (const value of vector) sum += value * value;
  const length = Math.sqrt(sum) || 1;
  for (let j = 0; j < vector.length; j++) vector[j]! /= length;
}

function unpacked({ scales, bytes }: Packed, width: number): Float32Array {
  const text = atob(bytes);
  return Float32Array.from({ length: text.length }, (_, i) => {
    const value = text.charCodeAt(i);
    return (value > 127 ? value - 256 : value) * scales[Math.floor(i / width)]!;
  });
}
