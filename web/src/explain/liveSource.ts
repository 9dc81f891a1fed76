import type { Page } from '@doodla/core';
import type { NotedLive } from '@doodla/core/explain';
import { RECORDING_GROUND } from '../media/keepFrame';
import type { PageDesk } from '../room/pageDesk';
import type { Room } from '../room/room';
import type { PictureSource } from './pictureTrack';

type LiveDesk = Pick<PageDesk, 'glass' | 'page' | 'pageId' | 'screen'> & { room: Pick<Room, 'sharing'> };

/** What moves under the marks of the page that is open: a shown screen, a camera, or a recording that is played. */
export class LiveSource implements PictureSource {
  constructor(private readonly desk: LiveDesk) {}

  /** Which page it is of, and how its parts are scrolled; null while nothing moves. */
  now(): NotedLive | null {
    const { page, screen } = this.desk;
    if (!page) return null;
    if (screen.isLive(page.id))
      return screen.canvas.width > 0 ? { page: page.id, panes: screen.panesOf(page.id) } : null;
    return isFilm(page) ? { page: page.id, panes: [] } : null;
  }

  get stamp(): unknown {
    const { page, screen, glass } = this.desk;
    if (page && screen.isLive(page.id)) return screen.canvas.width > 0 ? screen.frames.get() : undefined;
    return page && isFilm(page) ? `${page.id} ${glass.get()?.recordingAt}` : undefined;
  }

  /** Fills a canvas with it, whatever its shape; a page has the shape that it is drawn in again. */
  draw(canvas: HTMLCanvasElement): void {
    const { page, screen, glass } = this.desk;
    if (!page) return;
    const ctx = canvas.getContext('2d')!;
    if (screen.isLive(page.id)) return ctx.drawImage(screen.canvas, 0, 0, canvas.width, canvas.height);
    ctx.fillStyle = RECORDING_GROUND;
    ctx.fillRect(0, 0, canvas.width, canvas.height);
    ctx.save();
    ctx.scale(canvas.width / page.width, canvas.height / page.height);
    glass.get()?.drawRecording(ctx);
    ctx.restore();
  }

  /** What is heard with it. */
  get sounds(): MediaStreamTrack[] {
    const { glass, room, screen } = this.desk;
    const shown = room.sharing.presenter.get()?.source.sound ?? screen.sound;
    return [shown, glass.get()?.recordingSound()].filter((track) => track !== undefined);
  }

  /** Tells when it may be of another page, or lie otherwise. */
  watch(listener: () => void): () => void {
    const { pageId, screen } = this.desk;
    const stops = [pageId.subscribe(listener), screen.state.subscribe(listener)];
    return () => stops.forEach((stop) => stop());
  }
}

const isFilm = ({ surface }: Page) => surface.kind === 'media' && surface.form === 'video';
