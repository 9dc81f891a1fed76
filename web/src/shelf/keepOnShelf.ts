import type { Mark } from '@doodla/core';
import { boundsOf, growRect, SHELF_TITLE_LENGTH, typedIn } from '@doodla/core';
import { toast } from 'sonner';
import { keepThing, removeThing, setThingPicture } from '../api/shelf';
import { drawMark } from '../canvas/markPainter';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';
import { t } from '../words';
import { sayMark } from '../words/marks';
import { openFolder, shelfChanged } from './shelfState';

const PICTURE = { width: 480, height: 360 };
const MARGIN = 8;
/** How long what is still on its way to the server is waited for. */
const PATIENCE_MS = 8000;

/** Puts the selected marks on the teacher's shelf, as one thing. */
export async function keepMarks(desk: PageDesk): Promise<void> {
  const marks = desk.selection.marks();
  const page = desk.pageId.get();
  if (marks.length === 0 || page === undefined) return;
  const what = { pages: [page], marks: marks.map(({ id }) => id), title: titleOf(marks) };
  await keep(desk, what, () => drawMarks(desk, marks));
}

/** Puts pages with what is on them on the teacher's shelf, as one thing. */
export async function keepPages(desk: PageDesk, ids: readonly string[]): Promise<void> {
  const pages = desk.pages.get();
  const first = pages.find(({ id }) => id === ids[0]);
  if (!first) return;
  // One without a name of its own is called what its lesson is called.
  await keep(desk, { pages: ids, title: first.title.slice(0, SHELF_TITLE_LENGTH) }, () => {
    const canvas = document.createElement('canvas');
    return drawThumbnail(canvas, first, desk, PICTURE.width, ({ space }) => space === 'class').then(
      () => canvas,
    );
  });
}

async function keep(
  desk: PageDesk,
  what: { pages: readonly string[]; marks?: readonly string[]; title: string },
  draw: () => Promise<HTMLCanvasElement>,
): Promise<void> {
  const { room, sitting } = desk;
  try {
    await saved(desk);
    const place = { lesson: room.lesson, ...(sitting !== undefined && { sitting }) };
    const { id, title } = await keepThing({ ...what, ...place, folder: openFolder.get() });
    // Without a picture it is on the shelf all the same, by its name.
    await addPicture(id, draw).catch(() => undefined);
    shelfChanged.tell();
    toast(t('shelf.isOnYourShelf', { title }), {
      action: {
        label: t('common.undo'),
        onClick: () =>
          void removeThing(id).then(shelfChanged.tell, (error: Error) => toast.error(error.message)),
      },
    });
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}

/** Until the server has what was written a moment ago. */
function saved({ target }: Pick<PageDesk, 'target'>): Promise<void> {
  const isSaved = () => target.status.get().waiting === 0;
  if (isSaved()) return Promise.resolve();
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => {
      stop();
      reject(new Error(t('shelf.notSavedYet')));
    }, PATIENCE_MS);
    const stop = target.status.subscribe(() => {
      if (!isSaved()) return;
      clearTimeout(timer);
      stop();
      resolve();
    });
  });
}

async function addPicture(id: string, draw: () => Promise<HTMLCanvasElement>): Promise<void> {
  const canvas = await draw();
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (blob) await setThingPicture(id, blob);
}

async function drawMarks(desk: PageDesk, marks: readonly Mark[]): Promise<HTMLCanvasElement> {
  const canvas = document.createElement('canvas');
  const bounds = boundsOf(marks);
  if (!bounds) return canvas;
  const area = growRect(bounds, MARGIN);
  const scale = Math.min(2, PICTURE.width / area.width, PICTURE.height / area.height);
  canvas.width = Math.ceil(area.width * scale);
  canvas.height = Math.ceil(area.height * scale);
  const ctx = canvas.getContext('2d')!;
  ctx.setTransform(scale, 0, 0, scale, -area.x * scale, -area.y * scale);
  await Promise.all(
    marks.flatMap((mark) => (mark.kind === 'picture' ? [desk.pictures.load(mark.material)] : [])),
  );
  for (const mark of marks) drawMark(ctx, mark, desk.pictures);
  return canvas;
}

/** The first words that are on marks, else what the first of them is. */
function titleOf(marks: readonly Mark[]): string {
  const words = marks.map(typedIn).find((text) => text.trim() !== '') ?? sayMark(marks[0]!);
  return words.replace(/\s+/g, ' ').trim().slice(0, SHELF_TITLE_LENGTH);
}
