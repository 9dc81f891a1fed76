import type { Explanation, LogRef, MediaTrack, VideoTrack } from '@doodla/core';
import type { NotedByTake } from '@doodla/core/explain';
import { missingVideos, NotedTake, playedParts } from '@doodla/core/explain';
import type { Recorded } from '@doodla/core/replay';
import { useEffect, useState } from 'react';
import { fetchNoted, fetchTrack, listExplanations } from '../api/explanations';
import type { Caller } from '../api/http';
import { fetchRecorded } from '../api/replay';
import { MediaElements, soundElements, videoElements } from '../replay/mediaElements';
import type { VideoFiles } from '../replay/playedPictures';
import { logOf } from '../room/logOf';
import type { Room } from '../room/room';

/** All that an explanation is made of, whatever of it plays. */
export interface Material {
  readonly explanation: Explanation;
  /** What was done in its log. */
  readonly recorded: Recorded;
  readonly noted: NotedByTake;
  readonly shown: ReadonlyMap<string, NotedTake>;
  /** The sound and the videos of each take that has some, by take, and what plays them. */
  readonly sounds: ReadonlyMap<string, Blob>;
  readonly videos: VideoFiles;
  readonly voices: ReadonlyMap<string, HTMLAudioElement>;
  readonly films: Readonly<Record<VideoTrack, ReadonlyMap<string, HTMLVideoElement>>>;
  /** Whether a moving picture could not be read. */
  readonly lacksPictures: boolean;
  /** Keeps it playable when it is closed. */
  hold(): void;
}

/** A file of fewer bytes has no more than a head, as of a take that broke off at once. */
const LEAST_BYTES = 1000;

/** What plays here, and whether it does also when this is closed. */
interface Playing {
  elements: Pick<MediaElements<HTMLMediaElement>, 'close'>[];
  isHeld: boolean;
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
    const playing: Playing = { elements: [], isHeld: false };
    const { signal } = ending;
    const onProgress = (share: number) => setState({ share });
    const read = async () => {
      const explanation = tries === 0 ? first : await known(room, first, signal);
      return fetchMaterial(room, explanation, { token: room.token, signal, onProgress }, playing);
    };
    read().then(
      (material) => setState({ material, share: 1 }),
      (error: Error) => !signal.aborted && setState({ problem: error.message, share: 0 }),
    );
    return () => {
      ending.abort();
      if (!playing.isHeld) for (const each of playing.elements) each.close();
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

type Reading = Caller & { signal: AbortSignal; token: string | undefined; onProgress(share: number): void };

async function fetchMaterial(
  room: Room,
  explanation: Explanation,
  { onProgress, ...caller }: Reading,
  playing: Playing,
): Promise<Material> {
  const log = logOf(room);
  const recorded = await fetchRecorded(log, { ...caller, onProgress: (share) => onProgress(share / 2) });
  const noted = await fetchNoted(log, explanation, caller);
  const shown = new Map([...noted].map(([take, lines]) => [take, new NotedTake(lines)]));
  const onTracks = (share: number) => onProgress(0.5 + share / 2);
  const wanted = tracksOf(explanation, shown);
  const { files, empty } = await fetchFiles(log, explanation.id, wanted, { ...caller, onProgress: onTracks });
  const takes = explanation.takes.map((take) => (empty.voice.has(take.id) ? { ...take, voice: null } : take));
  const played = playedParts({ takes, parts: null });
  const [voices, live, faces] = [
    soundElements(files.voice),
    videoElements(files.video),
    videoElements(files.face),
  ];
  playing.elements.push(voices, live, faces);
  return {
    explanation: { ...explanation, takes },
    recorded,
    noted,
    shown,
    sounds: files.voice,
    videos: files,
    voices: voices.byTake,
    films: { video: live.byTake, face: faces.byTake },
    lacksPictures: missingVideos(played, shown, files).length > 0,
    hold() {
      playing.isHeld = true;
    },
  };
}

interface TrackOfTake {
  take: string;
  track: MediaTrack;
}

/** What is to be fetched: all sound, and videos of which something is seen. */
function tracksOf({ takes }: Explanation, shown: ReadonlyMap<string, NotedTake>): TrackOfTake[] {
  return takes.flatMap((take) => {
    const { id, voice, video, face, length } = take;
    const isLive = video !== null && (shown.get(id)?.liveSpans(0, length).length ?? 0) > 0;
    const tracks: (MediaTrack | false)[] = [
      voice !== null && 'voice',
      isLive && 'video',
      face !== null && 'face',
    ];
    return tracks.flatMap((track) => (track ? [{ take: id, track }] : []));
  });
}

/** Files in which any place is found at once, by track and take, and those that have no content; none of what cannot be read. */
async function fetchFiles(
  log: LogRef,
  explanation: string,
  wanted: readonly TrackOfTake[],
  { onProgress, ...caller }: Reading,
) {
  const files = {
    voice: new Map<string, Blob>(),
    video: new Map<string, Blob>(),
    face: new Map<string, Blob>(),
  };
  const empty = { voice: new Set<string>(), video: new Set<string>(), face: new Set<string>() };
  for (const [i, one] of wanted.entries()) {
    onProgress(i / wanted.length);
    const file = await fetchTrack(log, explanation, one, caller);
    if (file.size < LEAST_BYTES) empty[one.track].add(one.take);
    const { evenSound, seekable } = await import('../media/seekable');
    // What cannot be read is not played; it is told where it would be missed.
    const playable = await (one.track === 'voice' ? evenSound : seekable)(file).catch(() => undefined);
    if (playable) files[one.track].set(one.take, playable);
  }
  return { files, empty };
}
