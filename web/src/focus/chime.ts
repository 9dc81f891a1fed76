/** Three soft tones at the end of a countdown (frequencies of C5, E5 and G5 in equal temperament, ISO 16's A = 440 Hz). */
const TONES = [523.25, 659.26, 783.99];

/** Rings once. Does nothing where the browser allows no sound yet. */
export function chime(): void {
  const audio = new AudioContext();
  TONES.forEach((frequency, i) => {
    const start = audio.currentTime + i * 0.25;
    const tone = new OscillatorNode(audio, { frequency, type: 'triangle' });
    const volume = new GainNode(audio, { gain: 0 });
    volume.gain.setValueAtTime(0, start);
    volume.gain.linearRampToValueAtTime(0.35, start + 0.03);
    volume.gain.exponentialRampToValueAtTime(0.001, start + 1.1);
    tone.connect(volume).connect(audio.destination);
    tone.start(start);
    tone.stop(start + 1.2);
  });
  setTimeout(() => void audio.close(), 2500);
}
