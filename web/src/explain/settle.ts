import type { ExplanationSettings, LogRef, MediaTrack, Track } from '@doodla/core';
import { MOST_PIECE_BYTES } from '@doodla/core';
import type { PlayedPart, SettledTake } from '@doodla/core/explain';
import {
  missingVideos,
  settledNotes,
  settledSettings,
  settledTakes,
  SoundClock,
  videosIn,
  wholeOf,
  writeNoted,
} from '@doodla/core/explain';
import { nanoid } from 'nanoid';
import { dropTake, putExplanation, putPiece, putTake } from '../api/explanations';
import { t } from '../words';
import type { Material } from './useMaterial';

/**
 * Makes takes of their own of what plays, and drops for good all that was recorded otherwise; `onProgress` hears how much is
 * done, 0 to 1. Until the last step everything is there twice, so that nothing is lost where it breaks off. Throws an error with
 * a sentence where that cannot be done, and drops nothing then.
 */
export async function settle(
  log: LogRef,
  material: Material,
  said: ExplanationSettings,
  played: readonly PlayedPart[],
  onProgress: (share: number) => void,
): Promise<void> {
  const { explanation } = material;
  // A voice that cannot be read here would be dropped with the rest.
  if (played.some(({ voice }) => voice && !material.sounds.has(voice.take.id)))
    throw new Error(t('explain.voiceNotRead'));
  if (missingVideos(played, material.shown, material.videos).length > 0)
    throw new Error(t('explain.movingNotPacked'));
  const settled = settledTakes(played, nanoid);
  for (const [i, one] of settled.entries()) {
    await send(log, material, one);
    onProgress((i + 1) / (settled.length + 1));
  }
  const next = settledSettings(said, settled);
  const parts = settled.map(({ take }) => wholeOf(take));
  await putExplanation(log, explanation.id, { ...next, parts });
  for (const { id } of explanation.takes) await dropTake(log, explanation.id, id);
  // Takes play in the order of their times, unless it is said otherwise.
  const isInOrder = settled.every(
    ({ take }, i) => i === 0 || take.startedAt > settled[i - 1]!.take.startedAt,
  );
  if (isInOrder) await putExplanation(log, explanation.id, { ...next, parts: null });
  onProgress(1);
}

async function send(log: LogRef, material: Material, { take, part }: SettledTake): Promise<void> {
  const { id } = material.explanation;
  await putTake(log, id, take);
  const noted = writeNoted(settledNotes(material.noted, part));
  await sendTrack(log, id, take.id, 'notes', new TextEncoder().encode(noted));
  const sendCut = async (
    track: MediaTrack,
    file: Blob | undefined,
    from: number,
    to = from + part.length,
  ) => {
    if (!file) return;
    const { trimmed } = await import('../media/seekable');
    const cut = await trimmed(file, from / 1000, to / 1000);
    await sendTrack(log, id, take.id, track, new Uint8Array(await cut.arrayBuffer()));
  };
  if (part.voice) {
    const { take: heard, from } = part.voice;
    const sound = material.shown.get(heard.id)?.sound ?? new SoundClock([]);
    const end = sound.toSound(from + part.length);
    await sendCut('voice', material.sounds.get(heard.id), sound.toSound(from), end);
  }
  for (const track of videosIn(part, material.shown.get(part.take.id)))
    await sendCut(track, material.videos[track].get(part.take.id), part.from);
}

async function sendTrack(
  log: LogRef,
  explanation: string,
  take: string,
  track: Track,
  all: Uint8Array<ArrayBuffer>,
): Promise<void> {
  const size = MOST_PIECE_BYTES / 2;
  for (let number = 0; number * size < all.length; number++) {
    const bytes = all.slice(number * size, (number + 1) * size);
    await putPiece(log, { explanation, take, track, number, bytes });
  }
}
