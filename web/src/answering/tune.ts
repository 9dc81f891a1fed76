/** A beat, seconds: 100 to the minute. */
const BEAT = 0.6;
/** A note is heard for so much of its time, so that two of the same are told apart. */
const HELD = 0.9;
const LOUD = 0.2;

let playing: AudioContext | undefined;

/** Plays notes one after another; what was heard before stops. Seconds after which it is over. */
export function playTune(notes: readonly { hertz: number; beats: number }[]): number {
  void playing?.close().catch(() => {
    // It is over already.
  });
  const context = new AudioContext();
  playing = context;
  let at = context.currentTime + 0.05;
  for (const { hertz, beats } of notes) {
    const [tone, gain] = [context.createOscillator(), context.createGain()];
    tone.type = 'triangle';
    tone.frequency.value = hertz;
    gain.gain.setValueAtTime(0, at);
    gain.gain.linearRampToValueAtTime(LOUD, at + 0.02);
    gain.gain.setTargetAtTime(0, at + beats * BEAT * HELD, 0.03);
    tone.connect(gain).connect(context.destination);
    tone.start(at);
    tone.stop(at + beats * BEAT);
    at += beats * BEAT;
  }
  return at - context.currentTime;
}
