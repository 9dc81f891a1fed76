import type { Replay } from '@doodla/core/replay';
import { RequestError } from '../api/http';
import { bringBack } from '../replay/bringBack';
import type { PageDesk } from '../room/pageDesk';
import type { MendPlace } from './mended';
import { FaceCamera } from './faceCamera';
import { Microphone } from '../media/microphone';
import type { Studio } from './studio';
import type { Material } from './useMaterial';
import type { PlayedVoice } from '../replay/voice';

interface Played {
  replay: Replay;
  sound: PlayedVoice;
}

/**
 * Makes the page what it was where something is recorded anew, turns to it, and records there: with a voice, or only the drawing
 * while the voice that is there is heard. Throws an error with a sentence.
 */
export async function recordAnew(
  desk: PageDesk,
  studio: Studio,
  material: Material,
  place: MendPlace,
  { replay, sound }: Played,
): Promise<void> {
  const { room } = desk;
  const { explanation } = material;
  const moment = replay.at(place.span.from);
  if (!moment) return;
  const hasVoice = place.what === 'all' && explanation.takes.some(({ voice }) => voice !== null);
  const hasFace = place.what === 'all' && explanation.takes.some(({ face }) => face !== null);
  const microphone = hasVoice ? await Microphone.open() : undefined;
  // Without a camera it goes on all the same.
  const face = hasFace ? await FaceCamera.open().catch(() => undefined) : undefined;
  desk.turnTo(moment.page);
  const number = desk.pages.get().findIndex(({ id }) => id === moment.page) + 1;
  const [seq, at] = [replay.seqOf(moment), replay.realTime(place.span.from)];
  try {
    await bringBack(room, { page: moment.page, number, space: room.spaces.shownOn(moment.page), seq, at });
  } catch (error) {
    // It is as it was then already.
    if (!(error instanceof RequestError && error.code === 'as-it-was')) {
      microphone?.close();
      face?.close();
      throw error;
    }
  }
  const wish = { microphone, face, live: studio.live, pointing: true, focus: true };
  const recorder = await studio.mend(explanation, place, wish);
  if (place.what !== 'drawing') return;
  material.hold();
  hearMeanwhile(recorder, sound, place.span);
}

/** Plays a voice while something is drawn to it, and ends the recording with it. */
function hearMeanwhile(
  recorder: Awaited<ReturnType<Studio['mend']>>,
  sound: PlayedVoice,
  { from, to }: MendPlace['span'],
): void {
  let end: ReturnType<typeof setTimeout> | undefined;
  recorder.phase.subscribe(() => {
    clearTimeout(end);
    sound.pause();
    if (recorder.phase.get().is !== 'recording') return;
    const at = from + recorder.length;
    sound.play(at, 1);
    end = setTimeout(() => void recorder.finish(), to - at);
  });
}
