import type { Mark } from '@doodla/core';
import type { Edge } from '@doodla/core/construct';
import { beginAlike, cornersOfMark, edgesOf, leading, strings, ticks } from '@doodla/core/construct';
import { useEffect, useRef, useState } from 'react';
import { lineMarks, putLines } from '../desk/construct';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Switch } from '../ui/Switch';
import { t } from '../words';
import { cornerLetter } from './cornerLetter';

/** Most parts of an edge, and how long the lines are that divide one, page units. */
const MOST_PARTS = 60;
const TICK = 14;

interface NamedEdge {
  name: string;
  edge: Edge;
}

/** Sides by their letters; of several marks with the number of the mark. */
function namedEdges(marks: readonly Mark[]): NamedEdge[] {
  return marks.flatMap((mark, n) => {
    const edges = edgesOf(mark);
    const corners = cornersOfMark(mark).length;
    return edges.map((edge, i) => {
      const name = `${cornerLetter(i)}${cornerLetter((i + 1) % corners)}`;
      return { name: marks.length > 1 ? `${n + 1}: ${name}` : name, edge };
    });
  });
}

interface ConstructSheetProps {
  marks: readonly Mark[];
  desk: PageDesk;
  stage: Stage;
  onDone(): void;
}

/** Lines constructed on what is selected: an edge divided, points of two edges joined, corners led to one point. */
export default function ConstructSheet({ marks, desk, stage, onDone }: ConstructSheetProps) {
  const edges = namedEdges(marks);
  const [way, setWay] = useState<'divide' | 'join' | 'lead'>(
    edges.length > 1 && marks.length === 2 ? 'join' : 'divide',
  );
  const [count, setCount] = useState(way === 'join' ? 10 : 4);
  const [first, setFirst] = useState(0);
  const [second, setSecond] = useState(
    Math.max(
      0,
      edges.findIndex(({ name }) => name.startsWith('2:')),
    ) || Math.min(1, edges.length - 1),
  );
  const [turned, setTurned] = useState<boolean>();
  const isCount = Number.isInteger(count) && count >= 2 && count <= MOST_PARTS;
  const [a, b] = [edges[first]?.edge, edges[second]?.edge];
  const isTurned = turned ?? (a !== undefined && b !== undefined && beginAlike(a, b));
  const made: Edge[] =
    !isCount || !a || way === 'lead'
      ? []
      : way === 'divide'
        ? ticks(a, count, TICK)
        : b
          ? strings(a, b, count, isTurned)
          : [];
  const [like] = marks;
  const key = JSON.stringify(made);
  useEffect(() => {
    stage.showPreview(like && { marks: lineMarks(desk, JSON.parse(key) as Edge[], like) });
    return () => stage.showPreview(undefined);
  }, [key, like, desk, stage]);
  // A point that was asked for and not chosen is asked for no longer: the next tap means something else.
  const waits = useRef<object>(undefined);
  useEffect(
    () => () => {
      if (waits.current !== undefined && desk.picking.get() === waits.current) desk.picking.set(undefined);
    },
    [desk],
  );
  const edgeChoice = (label: string, value: number, onChange: (value: number) => void) => (
    <label className="flex items-center justify-between gap-2 text-sm">
      <span className="font-bold">{label}</span>
      <select
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
        className="min-h-11 rounded-lg border-2 border-board-line bg-paper px-2 text-ink"
      >
        {edges.map(({ name }, i) => (
          <option key={name} value={i}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <>
      <Choice
        label={t('construct.way')}
        value={way}
        columns={3}
        options={[
          { value: 'divide', name: t('construct.divide') },
          { value: 'join', name: t('construct.join') },
          { value: 'lead', name: t('construct.lead') },
        ]}
        onChange={(value) => setWay(value)}
      />
      <p className="text-sm">{t(`construct.${way}Hint`)}</p>
      {way !== 'lead' && (
        <>
          {edgeChoice(t(way === 'join' ? 'construct.firstEdge' : 'construct.edge'), first, setFirst)}
          {way === 'join' && edgeChoice(t('construct.secondEdge'), second, setSecond)}
          <label className="flex items-center justify-between gap-2 text-sm">
            <span className="font-bold">{t('construct.parts')}</span>
            <input
              type="number"
              min={2}
              max={MOST_PARTS}
              value={Number.isNaN(count) ? '' : count}
              onChange={(event) => setCount(event.target.valueAsNumber)}
              onKeyDown={(event) => event.stopPropagation()}
              className="min-h-11 w-20 rounded-lg border-2 border-board-line bg-paper px-2 text-end text-ink"
            />
          </label>
          {!isCount && (
            <p role="alert" className="text-sm font-bold text-chalk">
              {t('selection.pleaseGiveANumber', { most: MOST_PARTS })}
            </p>
          )}
          {way === 'join' && <Switch label={t('construct.turned')} checked={isTurned} onChange={setTurned} />}
        </>
      )}
      <Button
        look="onBoard"
        disabled={way !== 'lead' && made.length === 0}
        onClick={() => {
          if (!like) return;
          if (way !== 'lead') {
            putLines(desk, made, like);
            return onDone();
          }
          desk.room.tellNotice(t('construct.tapThePoint'));
          const choose = (_: string, { x, y }: { x: number; y: number }) => {
            putLines(desk, leading(marks.flatMap(cornersOfMark), [x, y]), like);
            onDone();
          };
          waits.current = choose;
          desk.picking.set(choose);
        }}
      >
        {t(way === 'lead' ? 'construct.chooseThePoint' : 'construct.draw')}
      </Button>
    </>
  );
}
