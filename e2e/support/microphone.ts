import type { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';

/** Gives a page a microphone that hears a click of 1 kHz whenever a pointer is lifted, and silence else. */
export async function clickingMicrophone(page: Page): Promise<void> {
  await page.addInitScript(() => {
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
        const click = new OscillatorNode(heard, { frequency: 1000 });
        click.connect(to);
        click.start();
        click.stop(heard.currentTime + 0.03);
      },
      true,
    );
  });
}

/** Takes a page's microphone away, as when somebody does not allow it. */
export async function forbiddenMicrophone(page: Page): Promise<void> {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('Permission denied', 'NotAllowedError'));
  });
}

const RATE = 48_000;
/** Two clicks that are nearer to each other are one, milliseconds. */
const APART_MS = 100;

/** When clicks are heard in sound as a browser recorded it, milliseconds; decoded by ffmpeg. */
export function clicksIn(sound: Buffer): number[] {
  const args = ['-v', 'error', '-i', 'pipe:0', '-f', 'f32le', '-ac', '1', '-ar', String(RATE), 'pipe:1'];
  const decoded = execFileSync('ffmpeg', args, { input: sound, maxBuffer: 1e9 });
  const clicks: number[] = [];
  for (let i = 0; i * 4 < decoded.length; i++) {
    const time = (i * 1000) / RATE;
    if (Math.abs(decoded.readFloatLE(i * 4)) < 0.2) continue;
    if (clicks.length === 0 || time - clicks.at(-1)! > APART_MS) clicks.push(time);
  }
  return clicks;
}

/** What a sound or video file is, by ffprobe. */
export function probed(file: Buffer): { codec: string; seconds: number } {
  const args = ['-v', 'error', '-show_entries', 'stream=codec_name:format=duration', '-of', 'json', 'pipe:0'];
  const found = JSON.parse(execFileSync('ffprobe', args, { input: file }).toString()) as {
    streams: { codec_name: string }[];
    format: { duration?: string };
  };
  return { codec: found.streams[0]!.codec_name, seconds: Number(found.format.duration) };
}
