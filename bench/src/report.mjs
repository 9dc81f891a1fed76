/** Middle value of a list of numbers. */
export function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}

/** Prints the one line of a bench, and says by the exit code whether every figure is within its limit. */
export function report(bench, figures) {
  const missed = Object.entries(figures).filter(
    ([, { value, limit }]) => limit !== undefined && value > limit,
  );
  console.log(JSON.stringify({ bench, ...figures, ok: missed.length === 0 }));
  if (missed.length > 0) process.exitCode = 1;
}
