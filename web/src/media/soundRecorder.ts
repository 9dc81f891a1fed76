/** What browsers can record sound as, the best first: Opus in a container that can be read before it is complete. */
const TYPES = ['audio/webm;codecs=opus', 'audio/ogg;codecs=opus', 'audio/mp4;codecs=opus', 'audio/mp4'];
/** Bits per second: plenty for a voice (RFC 6716 §2.1.1 has 24 to 32 kbit/s for fullband speech). */
const BITRATE = 32_000;
/** A recorder that has not begun by then does not begin, milliseconds. */
const BEGIN_MS = 5000;
/** How much is lost at most, milliseconds. */
const PIECE_MS = 1000;

export interface SoundRecorder {
  /** Media type of what comes. */
  readonly type: string;
  /** When the first of it was heard, by `performance.now`. */
  readonly startedAt: number;
  /** Resolves when the last piece has come. */
  stop(): Promise<void>;
}

/**
 * Records a stream's sound; resolves when that has begun. `onPiece` is given about a second of it at a time, in order; all of
 * them one after the other are a file. Rejects where the browser cannot.
 */
export function recordSound(
  stream: MediaStream,
  onPiece: (piece: Uint8Array<ArrayBuffer>) => void,
  onFailed: (error: Error) => void,
): Promise<SoundRecorder> {
  const mimeType = TYPES.find((type) => MediaRecorder.isTypeSupported(type));
  const recorder = new MediaRecorder(stream, { ...(mimeType && { mimeType }), audioBitsPerSecond: BITRATE });
  // Reading takes a moment, and pieces keep their order.
  let tail = Promise.resolve();
  recorder.ondataavailable = ({ data }) => {
    tail = tail
      .then(async () => {
        if (data.size > 0) onPiece(new Uint8Array(await data.arrayBuffer()));
      })
      .catch(onFailed);
  };
  let startedAt = 0;
  const stopped = new Promise<void>((resolve) => (recorder.onstop = () => resolve()));
  return new Promise((resolve, reject) => {
    recorder.onerror = () => {
      const failed = new Error('Sound could not be recorded.');
      reject(failed);
      onFailed(failed);
    };
    const late = setTimeout(() => reject(new Error('Nothing comes that could be recorded.')), BEGIN_MS);
    recorder.onstart = () => {
      clearTimeout(late);
      resolve({
        type: (recorder.mimeType || mimeType) ?? 'audio/webm',
        startedAt,
        async stop() {
          if (recorder.state !== 'inactive') recorder.stop();
          await stopped;
          await tail;
        },
      });
    };
    // What is heard from here on is recorded; the event that says so may come much later, where the page is busy.
    startedAt = performance.now();
    recorder.start(PIECE_MS);
  });
}
