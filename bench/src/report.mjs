/** Middle value of a list of numbers. */
export function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}

/** The value below which a part of the values lies, 0 to 1. */
export function percentile(values, part) {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length * part)];
}

/** Prints the one line of a bench, and says by the exit code whether every figure is within its limit. */
export function report(bench, figures) {
  const missed = Object.entries(figures).filter(
    ([, { value, limit }]) => limit !== undefined && value > limit,
  );
  console.log(JSON.stringify({ bench, ...figures, ok: missed.length === 0 }));
  if (missed.length > 0) process.exitCode = 1;
}
