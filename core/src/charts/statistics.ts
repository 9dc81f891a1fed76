/** The five numbers of a box plot. */
export interface FiveNumbers {
  least: number;
  lower: number;
  median: number;
  upper: number;
  most: number;
}

/** The middle value, or the mean of the two in the middle; NaN where there is none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return Number.isInteger(half) ? (sorted[half - 1]! + sorted[half]!) / 2 : sorted[Math.floor(half)]!;
}

/**
 * Least, quartiles and most; a quartile is the median of the values under or over the median, which belongs to neither half (Moore
 * and McCabe, "Introduction to the Practice of Statistics", 1989; so is it taught in schools). Needs a value.
 */
export function fiveNumbers(values: readonly number[]): FiveNumbers {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  const middle = median(sorted);
  return {
    least: sorted[0]!,
    lower: half > 0 ? median(sorted.slice(0, half)) : middle,
    median: middle,
    upper: half > 0 ? median(sorted.slice(sorted.length - half)) : middle,
    most: sorted.at(-1)!,
  };
}

/** Classes of a histogram, each as wide; a value on an edge belongs to the class that begins there, the last edge to the last. */
export interface Classes {
  from: number;
  width: number;
  counts: readonly number[];
}

/** Widths of classes that are read well, times a power of ten. */
const NICE = [1, 2, 2.5, 5, 10];
const MOST_CLASSES = 40;

/** Values in classes; how many follows from Sturges' rule (1926), widened to a width that is read well. Needs a value. */
export function classesOf(values: readonly number[]): Classes {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const wanted = Math.ceil(Math.log2(values.length)) + 1;
  const raw = (most - least || 1) / wanted;
  const power = 10 ** Math.floor(Math.log10(raw));
  const width = NICE.find((nice) => nice * power >= raw * (1 - 1e-9))! * power;
  const from = Math.floor(least / width + 1e-9) * width;
  const count = Math.min(MOST_CLASSES, Math.max(1, Math.ceil((most - from) / width - 1e-9)));
  const counts = Array.from({ length: count }, () => 0);
  for (const value of values) {
    const at = Math.min(count - 1, Math.floor((value - from) / width + 1e-9));
    counts[at] = counts[at]! + 1;
  }
  return { from, width, counts };
}
