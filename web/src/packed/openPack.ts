import type { Page, Rect } from '@doodla/core';
import { pageExtent } from '@doodla/core';
import type { PackedExplanation } from '@doodla/core/explain';
import { facesOn, marksIn, NotedTake, placeAt, stretchesOf } from '@doodla/core/explain';
import { Replay } from '@doodla/core/replay';
import { blankCanvas, contextOf } from '../canvas/blankCanvas';
import { needFace } from '../canvas/faces';
import { paintPaper } from '../canvas/paintPaper';
import { soundElements, videoElements } from '../replay/mediaElements';
import { PlayedPictures } from '../replay/playedPictures';
import { Player } from '../replay/player';
import type { Beside } from '../replay/ReplayStage';
import type { Scenery } from '../replay/scenery';
import { PlayedVoice } from '../replay/voice';
import { t } from '../words';
import type { PackFiles } from './packFiles';

/** A packed explanation, ready to play. */
export interface OpenedPack extends Beside {
  readonly explanation: PackedExplanation;
  readonly player: Player;
  readonly scenery: Scenery;
  readonly sound: PlayedVoice;
  close(): void;
}

/** Gets all ready that an explanation plays by; `onSilent` is told once when a voice cannot be played. */
export async function openPack(files: PackFiles, onSilent: () => void): Promise<OpenedPack> {
  const { explanation } = files;
  const scenery = await sceneryOf(files);
  const [voices, films, faces] = [
    soundElements(files.sounds),
    videoElements(files.videos),
    videoElements(files.faces),
  ];
  const { played, noted, recorded, stops } = explanation;
  const shown = new Map(Object.entries(noted).map(([take, lines]) => [take, new NotedTake(lines)]));
  const sound = new PlayedVoice(played, voices.byTake, shown, onSilent);
  const replay = new Replay(recorded, {
    counts: () => true,
    leads: () => true,
    longestPause: Infinity,
    parts: stretchesOf(played),
  });
  const player = new Player(replay, undefined, sound);
  player.waitAt(stops.map(({ time }) => time));
  return {
    explanation,
    player,
    scenery,
    sound,
    live: new PlayedPictures(played, films.byTake),
    face: new PlayedPictures(played, faces.byTake),
    at(time) {
      const place = placeAt(played, time);
      return place && shown.get(place.take)?.at(place.from);
    },
    close() {
      player.pause();
      for (const elements of [voices, films, faces]) elements.close();
    },
  };
}

/** Throws an error with a sentence where a file is no picture. */
function bitmapOf(file: Blob): Promise<ImageBitmap> {
  return createImageBitmap(file).catch(() => {
    throw new Error(t('explain.packUnreadable'));
  });
}

async function sceneryOf({ explanation, grounds, pictures: packedPictures }: PackFiles): Promise<Scenery> {
  const pages = new Map(explanation.pages.map((one) => [one.page.id, one]));
  const marks = marksIn(explanation);
  for (const face of await facesOn({ marks: [...marks.values()].flat() })) await needFace(face);
  const pictures = new Map<string, ImageBitmap>();
  for (const [material, file] of packedPictures) pictures.set(material, await bitmapOf(file));
  const extentOf = (page: Page): Rect =>
    pageExtent(
      page,
      (pages.get(page.id)?.bounds ?? []).map((rect) => rect ?? undefined),
    );
  return {
    pictures,
    pageNow: (id) => pages.get(id)?.page,
    extentOf,
    prepared: (page) => pages.get(page)?.prepared ?? [],
    async surface(page, width) {
      const extent = extentOf(page);
      const height = Math.max(1, Math.round((width * extent.height) / extent.width));
      const canvas = blankCanvas(width, height);
      const ground = grounds.get(page.id);
      if (!ground) await paintPaper(canvas, page, extent, pictures);
      else {
        const drawn = await bitmapOf(ground);
        const ctx = contextOf(canvas);
        ctx.imageSmoothingQuality = 'high';
        ctx.drawImage(drawn, 0, 0, width, height);
        drawn.close();
      }
      return canvas;
    },
    // All of them are here.
    loadPictures: () => Promise.resolve(),
  };
}
