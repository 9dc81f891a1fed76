import type { VideoTrack } from '../api/explanations.js';
import { VIDEO_TRACKS } from '../api/explanations.js';
import type { PlayedPart } from './playedParts.js';
import type { NotedTake } from './shown.js';

/** Which videos are seen while a part plays, of which this was noted. */
export function videosIn({ take, from, length }: PlayedPart, noted: NotedTake | undefined): VideoTrack[] {
  const isSeen = (track: VideoTrack) =>
    track === 'face' || (noted?.liveSpans(from, from + length).length ?? 0) > 0;
  return VIDEO_TRACKS.filter((track) => take[track] && isSeen(track));
}

/** Videos that are seen while parts play and are not among those that are here, by their tracks and takes. */
export function missingVideos(
  parts: readonly PlayedPart[],
  noted: ReadonlyMap<string, NotedTake>,
  here: Readonly<Record<VideoTrack, ReadonlyMap<string, unknown>>>,
): VideoTrack[] {
  return parts.flatMap((part) =>
    videosIn(part, noted.get(part.take.id)).filter((track) => !here[track].has(part.take.id)),
  );
}
