import type { Explanation } from '@doodla/core';
import type { PlayedPart } from '@doodla/core/explain';
import { explained, NotedTake, playedParts, stretchesOf } from '@doodla/core/explain';
import type { Recorded, Stretch } from '@doodla/core/replay';
import { useEffect, useState } from 'react';
import type { Caller } from '../api/http';
import { fetchNoted, fetchVoice } from '../api/explanations';
import { fetchRecorded } from '../api/replay';
import type { Room } from '../room/room';
import { t } from '../words';
import { logOf } from './bringBack';
import { PlayedVoice } from './voice';

/** An explanation that is ready to be played. */
export interface Explained {
  readonly explanation: Explanation;
  readonly recorded: Recorded;
  readonly played: readonly PlayedPart[];
  /** What plays, by the server's clock. */
  readonly parts: readonly Stretch[];
  /** What was noted in each take, by its id. */
  readonly noted: ReadonlyMap<string, NotedTake>;
  readonly sound: PlayedVoice;
}

interface Fetching {
  explained?: Explained;
  problem?: string;
  /** How much is here, 0 to 1. */
  share: number;
  again(): void;
}

/** An explanation with all that it needs, read once; closing ends the reading. */
export function useExplained(room: Room, explanation: Explanation): Fetching {
  const [tries, setTries] = useState(0);
  const [state, setState] = useState<Omit<Fetching, 'again'>>({ share: 0 });
  useEffect(() => {
    const ending = new AbortController();
    const addresses: string[] = [];
    const { signal } = ending;
    const onProgress = (share: number) => setState({ share });
    fetchExplained(room, explanation, { token: room.token, signal }, onProgress, addresses).then(
      (explained) => setState({ explained, share: 1 }),
      (error: Error) => !signal.aborted && setState({ problem: error.message, share: 0 }),
    );
    return () => {
      ending.abort();
      addresses.forEach((address) => URL.revokeObjectURL(address));
    };
  }, [room, explanation, tries]);
  return { ...state, again: () => setTries(tries + 1) };
}

async function fetchExplained(
  room: Room,
  explanation: Explanation,
  caller: Caller & { signal: AbortSignal; token: string | undefined },
  onProgress: (share: number) => void,
  addresses: string[],
): Promise<Explained> {
  const log = logOf(room);
  const recorded = await fetchRecorded(log, { ...caller, onProgress: (share) => onProgress(share / 2) });
  const noted = await fetchNoted(log, explanation, caller);
  const voices = new Map<string, HTMLAudioElement>();
  const spoken = explanation.takes.filter(({ voice }) => voice !== null);
  for (const [i, take] of spoken.entries()) {
    onProgress(0.5 + i / (2 * spoken.length));
    const voice = await voiceOf(await fetchVoice(log, explanation.id, take, caller), addresses);
    if (voice) voices.set(take.id, voice);
  }
  const played = playedParts(explanation);
  return {
    explanation,
    recorded: explained(recorded, explanation, noted),
    played,
    parts: stretchesOf(played),
    noted: new Map([...noted].map(([take, lines]) => [take, new NotedTake(lines)])),
    sound: new PlayedVoice(played, voices, () => room.tellProblem(t('explain.noSound'))),
  };
}

/** Sound in which any place is found at once; nothing where there is none in it, as of a take that broke off at once. */
async function voiceOf(recorded: Blob, addresses: string[]): Promise<HTMLAudioElement | undefined> {
  const { seekable } = await import('./seekable');
  const sound = await seekable(recorded).catch(() => undefined);
  if (!sound) return undefined;
  const address = URL.createObjectURL(sound);
  addresses.push(address);
  const voice = new Audio(address);
  voice.preload = 'auto';
  return voice;
}
