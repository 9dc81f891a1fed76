import { canShowScreen, mediaDevices } from '../secure/secureOnly';
import { t } from '../words';

/** Something that can be shown live: a screen, a camera, or what stands for one. */
export interface ScreenSource {
  kind: 'screen' | 'camera' | 'simulated';
  /** What is drawn of it; an element that has a size once it is ready. */
  picture: HTMLVideoElement | HTMLCanvasElement;
  size(): { width: number; height: number };
  /** What is heard with it, if anything. */
  sound?: MediaStreamTrack | undefined;
  /** Called when it ends by itself, such as by the browser's own button. */
  onEnded: () => void;
  stop(): void;
}

/** Larger ones are scaled by the browser before they reach us. */
const MOST = { width: { max: 1920 }, height: { max: 1080 } };
const FRAMES_PER_SECOND = 15;

/** A source that could not be opened. The message is fit to be shown. */
export class SourceError extends Error {
  override name = 'SourceError';
}

/** Whether this browser can show a screen from this address. */
export function canShareScreen(): boolean {
  return canShowScreen();
}

/** Lets the person pick a screen, window or tab. Throws SourceError; undefined where they change their mind. */
export async function pickScreen(): Promise<ScreenSource | undefined> {
  if (!canShareScreen()) {
    throw new SourceError(t('screen.thisBrowserCannotShareA'));
  }
  const stream = await mediaDevices()!
    // The browser asks the person whether the tab's sound goes along.
    .getDisplayMedia({ video: { ...MOST, frameRate: FRAMES_PER_SECOND }, audio: true })
    .catch((error: DOMException) => {
      if (error.name === 'NotAllowedError') return undefined;
      throw new SourceError(t('screen.theScreenCouldNotBe'));
    });
  return stream && fromStream(stream, 'screen');
}

/** Opens a camera, the first one if none is named, as large as is wanted. Throws SourceError. */
export async function openCamera(device?: string, size: MediaTrackConstraints = MOST): Promise<ScreenSource> {
  const video = { ...size, ...(device !== undefined && { deviceId: { exact: device } }) };
  const stream = await mediaDevices()
    ?.getUserMedia({ video })
    // Said below, whatever the reason.
    .catch(() => undefined);
  if (!stream) {
    throw new SourceError(t('screen.noCameraCanBeUsed'));
  }
  return fromStream(stream, 'camera');
}

async function fromStream(stream: MediaStream, kind: 'screen' | 'camera'): Promise<ScreenSource> {
  const picture = document.createElement('video');
  picture.muted = true;
  picture.srcObject = stream;
  await picture.play();
  const source: ScreenSource = {
    kind,
    picture,
    sound: stream.getAudioTracks()[0],
    size: () => ({ width: picture.videoWidth, height: picture.videoHeight }),
    onEnded: () => undefined,
    stop: () => {
      for (const track of stream.getTracks()) track.stop();
      picture.srcObject = null;
    },
  };
  stream.getVideoTracks()[0]!.addEventListener('ended', () => source.onEnded());
  return source;
}
