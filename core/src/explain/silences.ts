import type { Span } from '../replay/replay.js';

/** How much of the time is quieter than the voice, so that its loudness is found among pauses; common practice, no source. */
const LOUD_SHARE = 0.95;
/** So much quieter than the voice is silence: −30 dB; common practice, no source. */
const QUIET = 10 ** (-30 / 20);

/**
 * Where nothing is said for at least `least` milliseconds, as spans of the sound. `loudness` is the root mean square of each
 * window of `windowMs`. Sound without any loud place is all silence.
 */
export function silencesIn(loudness: ArrayLike<number>, windowMs: number, least: number): Span[] {
  const sorted = Array.from(loudness).sort((a, b) => a - b);
  const loud = sorted[Math.floor((sorted.length - 1) * LOUD_SHARE)] ?? 0;
  const silences: Span[] = [];
  let from = 0;
  for (let i = 0; i <= loudness.length; i++) {
    if (i < loudness.length && (loudness[i]! <= loud * QUIET || loud === 0)) continue;
    if ((i - from) * windowMs >= least) silences.push({ from: from * windowMs, to: i * windowMs });
    from = i + 1;
  }
  return silences;
}

/** What of spans none of others takes, as long as at least `least` is left of it. Both are in order. */
export function spansWithout(spans: readonly Span[], others: readonly Span[], least: number): Span[] {
  return spans.flatMap((span) => {
    const free: Span[] = [];
    let { from } = span;
    for (const other of others) {
      if (other.to <= from || other.from >= span.to) continue;
      free.push({ from, to: Math.min(other.from, span.to) });
      from = Math.max(from, other.to);
    }
    free.push({ from, to: span.to });
    return free.filter((one) => one.to - one.from >= least);
  });
}
