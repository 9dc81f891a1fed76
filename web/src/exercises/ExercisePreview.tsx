import type { Mark, Point, Rect } from '@doodla/core';
import { isStanding, rectContains } from '@doodla/core';
import { solved } from '@doodla/core/answers';
import type { ExerciseMark } from '@doodla/core/exercises';
import { useEffect, useRef, useState } from 'react';
import { drawMark } from '../canvas/markPainter';
import type { PictureCache } from '../pictures/pictureCache';
import { t } from '../words';

/** Width in which a page is drawn, pixels; shown smaller. */
const WIDTH = 960;

interface ExercisePreviewProps {
  marks: readonly ExerciseMark[];
  room: Rect;
  /** Whether it is shown as it is once all is right. */
  isSolved: boolean;
  pictures: PictureCache;
  /** The picture on which the next words belong where it is tapped. */
  onPoint?: ((point: Point) => void) | undefined;
}

/** An exercise as the class gets it. */
export function ExercisePreview({ marks, room, isSolved, pictures, onPoint }: ExercisePreviewProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [loaded, setLoaded] = useState(0);
  const scale = WIDTH / room.width;
  const height = Math.round(room.height * scale);
  useEffect(() => {
    let isWanted = true;
    const materials = marks.flatMap((mark) => (mark.kind === 'picture' ? [mark.material] : []));
    void Promise.all(materials.map((material) => pictures.load(material))).then(() => {
      if (isWanted && materials.length > 0) setLoaded((count) => count + 1);
    });
    return () => {
      isWanted = false;
    };
  }, [marks, pictures]);
  useEffect(() => {
    const ctx = canvas.current!.getContext('2d')!;
    ctx.setTransform(scale, 0, 0, scale, -room.x * scale, -room.y * scale);
    ctx.clearRect(room.x, room.y, room.width, room.height);
    for (const mark of seenMarks(marks, isSolved)) drawMark(ctx, mark, pictures);
  }, [marks, room, scale, isSolved, pictures, loaded]);
  const picture = marks.find((mark) => mark.kind === 'picture');
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={t('exercises.preview')}
      width={WIDTH}
      height={height}
      onClick={({ clientX, clientY, currentTarget }) => {
        if (!onPoint || !picture) return;
        const { left, top, width } = currentTarget.getBoundingClientRect();
        const by = room.width / width;
        const [x, y] = [room.x + (clientX - left) * by, room.y + (clientY - top) * by];
        if (rectContains(picture, x, y))
          onPoint([(x - picture.x) / picture.width, (y - picture.y) / picture.height]);
      }}
      className={`w-full rounded-lg border-2 border-paper-line bg-white ${onPoint ? 'cursor-crosshair' : ''}`}
    />
  );
}

/** What is seen of an exercise, lowest first. */
function seenMarks(marks: readonly ExerciseMark[], isSolved: boolean): Mark[] {
  const placed = marks.map((mark, i): Mark => ({
    ...NOBODYS,
    ...mark,
    order: `a${String(i).padStart(6, '0')}1`,
  }));
  const answers = isSolved ? solved(placed) : [];
  const byId = new Map(answers.map((mark) => [mark.id, mark]));
  return [...placed, ...answers].filter((mark) => isStanding(mark, 'class', byId));
}

const NOBODYS = { page: '', author: '', space: 'class', locked: false, createdAt: 0 } as const;
