import type { Mark, Point, Rect } from '@doodla/core';
import { isStanding, rectContains } from '@doodla/core';
import { solved } from '@doodla/core/answers';
import type { ExerciseMark } from '@doodla/core/exercises';
import type { KeyboardEvent } from 'react';
import { useEffect, useRef, useState } from 'react';
import { drawMark } from '../canvas/markPainter';
import type { PictureCache } from '../pictures/pictureCache';
import { t } from '../words';

const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const MIDDLE: Point = [0.5, 0.5];
/** So far a key goes, of the picture. */
const KEY_STEP = 0.025;
const within = (part: number) => Math.min(1, Math.max(0, part));

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
  /** Where keys would place a word, of the picture. */
  const [cursor, setCursor] = useState<Point>();
  const scale = WIDTH / room.width;
  const height = Math.round(room.height * scale);
  useEffect(() => {
    let isWanted = true;
    const materials = marks.flatMap((mark) => (mark.kind === 'picture' ? [mark.material] : []));
    Promise.all(materials.map((material) => pictures.load(material))).then(
      () => {
        if (isWanted && materials.length > 0) setLoaded((count) => count + 1);
      },
      () => {
        // A picture that cannot be had is drawn as an empty field.
      },
    );
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
  const drawn = (
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
  if (!onPoint || !picture) return drawn;
  const share = ([x, y]: Point) => ({
    left: `${((picture.x + x * picture.width - room.x) / room.width) * 100}%`,
    top: `${((picture.y + y * picture.height - room.y) / room.height) * 100}%`,
  });
  const pressed = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    const [x, y] = cursor ?? MIDDLE;
    if (arrow) setCursor([within(x + arrow[0] * KEY_STEP), within(y + arrow[1] * KEY_STEP)]);
    else if (event.key === 'Enter') onPoint(cursor ?? MIDDLE);
    else return;
    event.preventDefault();
  };
  return (
    <div
      role="application"
      tabIndex={0}
      aria-label={t('exercises.placeByKeys')}
      onKeyDown={pressed}
      onFocus={() => setCursor(cursor ?? MIDDLE)}
      className="relative rounded-lg focus-visible:outline-3"
    >
      {drawn}
      {cursor && (
        <span
          aria-hidden
          className="pointer-events-none absolute size-5 -translate-1/2 rounded-full border-4 border-board"
          style={share(cursor)}
        />
      )}
    </div>
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
