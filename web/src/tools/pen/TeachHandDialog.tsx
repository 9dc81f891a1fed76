import { STRIDE } from '@doodla/core';
import type { HandSample } from '@doodla/core/handwriting';
import type { PointerEvent } from 'react';
import { useEffect, useRef, useState } from 'react';
import { keepHand, ownHand } from '../../desk/ownHand';
import { copiedSamples } from '../../desk/typeWriting';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import { useDrag } from '../../ui/useDrag';
import { t } from '../../words';

/** What is copied: every letter, figure and the commonest signs; the first two lines have each small letter (a pangram). */
const LINES = [
  'The quick brown fox',
  'jumps over the lazy dog',
  '0123456789 ? !',
  'ABCDEFGHIJKLM',
  'NOPQRSTUVWXYZ',
];
const FIELD = { width: 640, height: 130 };

interface TeachHandDialogProps {
  isTeacher: boolean;
  onClose(): void;
}

/** One's own letters, copied from shown lines, so that one's writing is read better. */
export default function TeachHandDialog({ isTeacher, onClose }: TeachHandDialogProps) {
  const [at, setAt] = useState(0);
  const [samples, setSamples] = useState<readonly HandSample[]>([]);
  const [strokes, setStrokes] = useState<readonly (readonly number[])[]>([]);
  const [problem, setProblem] = useState<string>();
  const [isKept, setKept] = useState(false);
  useEffect(() => void ownHand(isTeacher).then((kept) => setKept(kept.length > 0)), [isTeacher]);
  const line = LINES[at]!;
  const clear = () => {
    setStrokes([]);
    setProblem(undefined);
  };
  const keep = async (all: readonly HandSample[]) => {
    try {
      await keepHand(isTeacher, all);
      onClose();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const take = async () => {
    const copied = await copiedSamples(strokes, line).catch(() => 'unread' as const); // Told below.
    if (copied === 'unread') return setProblem(t('shapes.notReached'));
    if (!copied) return setProblem(t('writing.unlike'));
    const all = [...samples, ...copied];
    if (at + 1 === LINES.length) return await keep(all);
    setSamples(all);
    setAt(at + 1);
    clear();
  };
  return (
    <Modal wide open title={t('writing.teach')} description={t('writing.teachHow')} onOpenChange={onClose}>
      <p className="mb-2 text-sm">{t('writing.lineOf', { number: at + 1, count: LINES.length })}</p>
      <p data-testid="to-copy" className="mb-2 font-[Andika] text-3xl tracking-wide">
        {line}
      </p>
      <WritingField strokes={strokes} onStroke={(stroke) => setStrokes((before) => [...before, stroke])} />
      {problem !== undefined && (
        <p role="alert" className="mt-2 font-bold text-alarm">
          {problem}
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        <Button look="main" disabled={strokes.length === 0} onClick={() => void take()}>
          {t(at + 1 === LINES.length ? 'writing.keep' : 'writing.next')}
        </Button>
        <Button disabled={strokes.length === 0} onClick={clear}>
          {t('writing.again')}
        </Button>
        {isKept && (
          <Button look="alarm" onClick={() => void keep([])}>
            {t('writing.forget')}
          </Button>
        )}
      </div>
    </Modal>
  );
}

interface WritingFieldProps {
  strokes: readonly (readonly number[])[];
  onStroke(points: readonly number[]): void;
}

/** Where one writes, with a base line. */
function WritingField({ strokes, onStroke }: WritingFieldProps) {
  const field = useRef<SVGSVGElement>(null);
  const [drawing, setDrawing] = useState<readonly number[]>([]);
  const placeOf = (event: PointerEvent) => {
    const box = field.current!.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    return [(x * FIELD.width) / box.width, (y * FIELD.height) / box.height, 0.5, 0];
  };
  const drag = useDrag<number[], SVGSVGElement>({
    begin: (event) => placeOf(event),
    move: (event, points) => {
      points.push(...placeOf(event));
      setDrawing([...points]);
    },
    end: (event, points) => {
      points.push(...placeOf(event));
      setDrawing([]);
      onStroke([...points]);
    },
  });
  const pathOf = (points: readonly number[]) => {
    const places: string[] = [];
    for (let i = 0; i < points.length; i += STRIDE) places.push(`${points[i]} ${points[i + 1]}`);
    return places.length > 0 ? `M${places.join('L')}` : '';
  };
  return (
    <svg
      ref={field}
      role="img"
      aria-label={t('writing.field')}
      viewBox={`0 0 ${FIELD.width} ${FIELD.height}`}
      className="w-full touch-none rounded-xl border-2 border-paper-line bg-white"
      {...drag}
    >
      <path d={`M0 ${FIELD.height * 0.68}H${FIELD.width}`} stroke="#9fb8ad" />
      <path
        d={[...strokes, drawing].map(pathOf).join('')}
        fill="none"
        stroke="#000"
        strokeWidth={3}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
