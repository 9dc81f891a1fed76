import type { Change, Page } from '@doodla/core';
import { ordersBeside } from '@doodla/core';
import { format } from 'date-fns';
import { nanoid } from 'nanoid';
import type { Desk } from '../desk/desk';
import type { PictureStore } from '../desk/pictureSender';
import { t } from '../words';

/** What lies under a recording until its first picture is there. */
export const RECORDING_GROUND = '#1c2b26';

/** What keeping a frame needs of the page it was written on. */
export type FrameDesk = Pick<
  Desk,
  'classroom' | 'tellProblem' | 'page' | 'pages' | 'target' | 'targetMarks'
> &
  PictureStore;

/** A recording that is held at a frame. */
export interface HeldRecording {
  /** Draws the frame into a context that is in page units. */
  drawInto(ctx: CanvasRenderingContext2D): void;
  /** Where it is held, seconds. */
  position: number;
}

/**
 * Moves what the class has written on a held frame to a page of its own with that frame under it, so that the
 * recording goes on clean. Does nothing where nothing is written.
 */
export async function keepFrame(desk: FrameDesk, recording: HeldRecording): Promise<void> {
  const { page, targetMarks, target } = desk;
  const marks = targetMarks?.all() ?? [];
  if (!page || !desk.classroom || marks.length === 0) return;
  const picture = document.createElement('canvas');
  [picture.width, picture.height] = [page.width, page.height];
  const ctx = picture.getContext('2d')!;
  ctx.fillStyle = RECORDING_GROUND;
  ctx.fillRect(0, 0, page.width, page.height);
  recording.drawInto(ctx);
  try {
    const blob = await new Promise<Blob | null>((resolve) => picture.toBlob(resolve, 'image/jpeg', 0.9));
    if (!blob) throw new Error(t('media.thisFrameCouldNotBe'));
    const material = await desk.upload(blob);
    const kept = framePage(desk, page, material, recording.position);
    const moved = marks.flatMap((mark): Change[] => [
      { do: 'remove', mark: mark.id },
      { do: 'add', mark: { ...mark, id: nanoid(), page: kept.id } },
    ]);
    target.perform([{ do: 'addPage', page: kept }, ...moved]);
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}

function framePage(desk: FrameDesk, page: Page, material: string, position: number): Page {
  return {
    id: nanoid(),
    order: ordersBeside(desk.target.state.pages.values(), page.id)[0]!,
    title: t('media.frameAt', { title: page.title, time: format(new Date(position * 1000), 'm:ss') }).slice(
      0,
      200,
    ),
    width: page.width,
    height: page.height,
    surface: { kind: 'picture', material },
    removed: false,
  };
}
