import type { Explanation } from '@doodla/core';
import { NotedTake } from '@doodla/core/explain';
import type { NotedByTake } from '@doodla/core/explain';
import type { Recorded } from '@doodla/core/replay';
import { useEffect, useState } from 'react';
import { fetchNoted, fetchVoice, listExplanations } from '../api/explanations';
import type { Caller } from '../api/http';
import { fetchRecorded } from '../api/replay';
import { logOf } from '../room/logOf';
import type { Room } from '../room/room';

/** All that an explanation is made of, whatever of it plays. */
export interface Material {
  readonly explanation: Explanation;
  /** What was done in its log. */
  readonly recorded: Recorded;
  readonly noted: NotedByTake;
  readonly shown: ReadonlyMap<string, NotedTake>;
  /** The sound of each take that has some, ready to be played, and its file. */
  readonly voices: ReadonlyMap<string, HTMLAudioElement>;
  readonly sounds: ReadonlyMap<string, Blob>;
  /** Keeps its voices playable when it is closed. */
  hold(): void;
}

/** A file of fewer bytes has no more than a head, as of a take that broke off at once. */
const LEAST_SOUND = 1000;

/** Addresses of sounds that are played here. */
interface Addresses {
  readonly all: string[];
  held: boolean;
}

interface Fetching {
  material?: Material;
  problem?: string;
  /** How much is here, 0 to 1. */
  share: number;
  again(): void;
  /** Reads anew, as after something was recorded. */
  renew(): void;
}

/** An explanation with all that it needs, read once; closing ends the reading. */
export function useMaterial(room: Room, first: Explanation): Fetching {
  const [tries, setTries] = useState(0);
  const [state, setState] = useState<Omit<Fetching, 'again' | 'renew'>>({ share: 0 });
  useEffect(() => {
    const ending = new AbortController();
    const addresses: Addresses = { all: [], held: false };
    const { signal } = ending;
    const onProgress = (share: number) => setState({ share });
    const read = async () => {
      const explanation = tries === 0 ? first : await known(room, first, signal);
      return fetchMaterial(room, explanation, { token: room.token, signal }, onProgress, addresses);
    };
    read().then(
      (material) => setState({ material, share: 1 }),
      (error: Error) => !signal.aborted && setState({ problem: error.message, share: 0 }),
    );
    return () => {
      ending.abort();
      if (!addresses.held) addresses.all.forEach((address) => URL.revokeObjectURL(address));
    };
  }, [room, first, tries]);
  const again = () => setTries(tries + 1);
  return { ...state, again, renew: again };
}

/** An explanation as it is by now. */
async function known(room: Room, first: Explanation, signal: AbortSignal): Promise<Explanation> {
  const { explanations } = await listExplanations(logOf(room), { token: room.token, signal });
  return explanations.find(({ id }) => id === first.id) ?? first;
}

async function fetchMaterial(
  room: Room,
  explanation: Explanation,
  caller: Caller & { signal: AbortSignal; token: string | undefined },
  onProgress: (share: number) => void,
  addresses: Addresses,
): Promise<Material> {
  const log = logOf(room);
  const recorded = await fetchRecorded(log, { ...caller, onProgress: (share) => onProgress(share / 2) });
  const noted = await fetchNoted(log, explanation, caller);
  const [voices, sounds] = [new Map<string, HTMLAudioElement>(), new Map<string, Blob>()];
  const spoken = explanation.takes.filter(({ voice }) => voice !== null);
  const silent = new Set<string>();
  for (const [i, take] of spoken.entries()) {
    onProgress(0.5 + i / (2 * spoken.length));
    const file = await fetchVoice(log, explanation.id, take, caller);
    if (file.size < LEAST_SOUND) silent.add(take.id);
    const sound = await soundOf(file);
    if (!sound) continue;
    sounds.set(take.id, sound);
    voices.set(take.id, voiceOf(sound, addresses));
  }
  const shown = new Map([...noted].map(([take, lines]) => [take, new NotedTake(lines)]));
  const hold = () => {
    addresses.held = true;
  };
  const takes = explanation.takes.map((take) => (silent.has(take.id) ? { ...take, voice: null } : take));
  return { explanation: { ...explanation, takes }, recorded, noted, shown, voices, sounds, hold };
}

/** Sound in which any place is found at once; nothing where it cannot be read. */
async function soundOf(recorded: Blob): Promise<Blob | undefined> {
  const { seekable } = await import('../film/seekable');
  return seekable(recorded).catch(() => undefined);
}

function voiceOf(sound: Blob, addresses: Addresses): HTMLAudioElement {
  const address = URL.createObjectURL(sound);
  addresses.all.push(address);
  const voice = new Audio(address);
  voice.preload = 'auto';
  return voice;
}
