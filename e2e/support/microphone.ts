import type { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';

/** Gives a page a microphone that hears a tone of 1 kHz whenever a pointer is lifted, and silence else. */
export async function soundingMicrophone(page: Page, seconds = 0.03): Promise<void> {
  await page.addInitScript((long) => {
    let context: AudioContext | undefined;
    let out: MediaStreamAudioDestinationNode | undefined;
    const open = () => {
      context ??= new AudioContext();
      if (!out) {
        out = context.createMediaStreamDestination();
        // A microphone is never quite silent; where nothing at all comes, nothing is recorded.
        const hum = new OscillatorNode(context, { frequency: 50 });
        hum.connect(new GainNode(context, { gain: 0.01 })).connect(out);
        hum.start();
      }
      return { context, out };
    };
    navigator.mediaDevices.getUserMedia = () => Promise.resolve(open().out.stream.clone());
    window.addEventListener(
      'pointerup',
      () => {
        const { context: heard, out: to } = open();
        void heard.resume();
        const tone = new OscillatorNode(heard, { frequency: 1000 });
        tone.connect(to);
        tone.start();
        tone.stop(heard.currentTime + long);
      },
      true,
    );
  }, seconds);
}

/** Takes a page's microphone away, as when somebody does not allow it. */
export async function forbiddenMicrophone(page: Page): Promise<void> {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('Permission denied', 'NotAllowedError'));
  });
}

const RATE = 48_000;
/** Loud places that are nearer to each other are one tone, milliseconds. */
const APART_MS = 50;

/** When tones begin in sound as a browser recorded it, milliseconds; decoded by ffmpeg. */
export function tonesIn(sound: Buffer): number[] {
  const args = ['-v', 'error', '-i', 'pipe:0', '-f', 'f32le', '-ac', '1', '-ar', String(RATE), 'pipe:1'];
  const decoded = execFileSync('ffmpeg', args, { input: sound, maxBuffer: 1e9 });
  const begins: number[] = [];
  let last = -Infinity;
  for (let i = 0; i * 4 < decoded.length; i++) {
    if (Math.abs(decoded.readFloatLE(i * 4)) < 0.2) continue;
    const time = (i * 1000) / RATE;
    if (time - last > APART_MS) begins.push(time);
    last = time;
  }
  return begins;
}

/** How long a file of sound or video is by ffprobe, seconds. */
export function probed(file: Buffer): number {
  const args = ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', 'pipe:0'];
  return Number(execFileSync('ffprobe', args, { input: file }).toString());
}
