/**
 * Calls back when a hand has rested so long, milliseconds. On a busy machine it may have gone on before that was heard: what
 * it did comes before the next frame, so it is only called back then. Returns what ends the wait.
 */
export function afterRest(ms: number, callback: () => void): () => void {
  let frame: number | undefined;
  const timer = setTimeout(() => (frame = requestAnimationFrame(callback)), ms);
  return () => {
    clearTimeout(timer);
    if (frame !== undefined) cancelAnimationFrame(frame);
  };
}
