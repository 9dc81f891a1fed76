// Making a video of what was recorded last, beside bare WebCodecs that encodes the same pictures.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** Seconds that it takes to make a 720p video of the newest explanation, with its length and those that bare encoding takes. */
export async function filmTimes(page) {
  await page.getByRole('button', { name: 'Explanations', exact: true }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).first().click();
  await page.getByTestId('replay-page').waitFor();
  await page.getByRole('button', { name: 'Take it along' }).click();
  await page.getByLabel('As', { exact: true }).selectOption('Video, 1280 × 720');
  const began = performance.now();
  await page.getByRole('button', { name: 'Make it', exact: true }).click();
  const link = page.getByRole('link', { name: /^Save / });
  const problem = page.getByRole('region', { name: 'Take it along' }).getByRole('alert');
  await link.or(problem).waitFor({ timeout: 1_800_000 });
  if (await problem.isVisible()) throw new Error(await problem.innerText());
  const made = (performance.now() - began) / 1000;
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
  const path = await download.path();
  const probe = ['-v', 'error', '-show_entries', 'format=duration,size', '-of', 'csv=p=0', path];
  const [length, bytes] = execFileSync('ffprobe', probe).toString().split(',').map(Number);
  const pictures = packetsOf(path);
  return { made, length, bytes, pictures: pictures.length, bare: await bareSeconds(page, pictures) };
}

/** The encoded pictures of a film, taken out by ffmpeg into an IVF file: a head of 32 bytes, then each with one of 12. */
function packetsOf(path) {
  const out = `${path}.ivf`;
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', path, '-map', '0:v', '-c', 'copy', '-f', 'ivf', out]);
  const file = readFileSync(out);
  const packets = [];
  for (let at = 32; at + 12 <= file.length;) {
    const size = file.readUInt32LE(at);
    packets.push(file.subarray(at + 12, at + 12 + size).toString('base64'));
    at += 12 + size;
  }
  return packets;
}

/**
 * How long the browser itself takes to encode pictures from a canvas, as whatever is drawn has to be; seconds. They are decoded
 * first, some at a time, which does not count.
 */
function bareSeconds(page, pictures) {
  return page.evaluate(async (all) => {
    const { VideoEncoder, VideoDecoder, EncodedVideoChunk, VideoFrame, OffscreenCanvas } = globalThis;
    const CODEC = 'vp09.00.31.08';
    const AT_ONCE = 50;
    const fail = (error) => {
      throw error;
    };
    const drained = async (coder, queue, most) => {
      while (coder[queue] > most) await new Promise((done) => setTimeout(done));
    };
    const encoder = new VideoEncoder({ output: () => undefined, error: fail });
    const config = { codec: CODEC, width: 1280, height: 720, bitrate: 1.2e6 };
    encoder.configure({ ...config, latencyMode: 'realtime', contentHint: 'text' });
    const decoded = [];
    const decoder = new VideoDecoder({
      output(frame) {
        decoded.push(globalThis.createImageBitmap(frame).finally(() => frame.close()));
      },
      error: fail,
    });
    decoder.configure({ codec: CODEC });
    const canvas = new OffscreenCanvas(1280, 720);
    const ctx = canvas.getContext('2d', { alpha: false });
    let [count, seconds] = [0, 0];
    const encodeDecoded = async () => {
      const bitmaps = await Promise.all(decoded.splice(0));
      const began = performance.now();
      for (const bitmap of bitmaps) {
        ctx.drawImage(bitmap, 0, 0);
        const frame = new VideoFrame(canvas, { timestamp: count * 40_000 });
        encoder.encode(frame, { keyFrame: count++ % 100 === 0 });
        frame.close();
        await drained(encoder, 'encodeQueueSize', 4);
      }
      await drained(encoder, 'encodeQueueSize', 0);
      seconds += (performance.now() - began) / 1000;
      bitmaps.forEach((bitmap) => bitmap.close());
    };
    for (const [i, packet] of all.entries()) {
      const data = Uint8Array.from(globalThis.atob(packet), (letter) => letter.charCodeAt(0));
      // VP9, §6.2: the first picture is one that needs no other.
      decoder.decode(new EncodedVideoChunk({ type: i === 0 ? 'key' : 'delta', timestamp: i * 40_000, data }));
      await drained(decoder, 'decodeQueueSize', 4);
      if (decoded.length >= AT_ONCE) await encodeDecoded();
    }
    await decoder.flush();
    await encodeDecoded();
    const began = performance.now();
    await encoder.flush();
    return seconds + (performance.now() - began) / 1000;
  }, pictures);
}
