import type { Mark, Point } from '@doodla/core';
import type { Answer } from '@doodla/core/answers';
import {
  copyMoved,
  dropped,
  figureSet,
  filledIn,
  seenBounds,
  sortedByVotes,
  tapped,
  traced,
} from '@doodla/core/answers';
import { Check, Undo2, X } from 'lucide-react';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { t } from '../words';
import type { AnswerDesk } from './answeredPage';
import { answeredPage, copiesOn } from './answeredPage';
import { AnswerThing } from './AnswerThing';
import { doAside } from './asides';
import { isCell } from './cells';
import { FillField } from './FillField';
import { seenTogether } from './seenTogether';
import { TraceField } from './TraceField';

const FigureControls = lazy(() => import('./FigureControls'));

/** So long it is said whether an answer is right, milliseconds. */
const SAID_MS = 3000;

interface AnswersProps {
  /** Where answers go: to the class, or nowhere where a page is tried. */
  answers: AnswerDesk;
  desk: PageDesk;
  stage: Stage;
  originals: readonly Mark[];
  /** Whether it is not said what is right. */
  quiet?: boolean;
  /** Whether it is somebody else's turn: nothing can be answered, but what was said last stays for its time. */
  waits?: boolean;
}

/** From where to where something was carried, page units. */
interface Hand {
  from: Point;
  to: Point;
}

/** What was said of an answer last. */
interface Said extends Pick<Answer, 'verdict' | 'sentBack'> {
  /** The mark that it is said at. */
  at: string;
  number: number;
}

/** What lies over the marks of a page that answer, to tap, move and fill them in. */
export function Answers({ answers, desk, stage, originals, quiet = false, waits = false }: AnswersProps) {
  const { scale, x, y } = useStore(stage.view);
  const [said, setSaid] = useState<Said>();
  useEffect(() => {
    if (!said) return undefined;
    const timer = setTimeout(() => setSaid(undefined), SAID_MS);
    return () => clearTimeout(timer);
  }, [said]);
  const page = answeredPage(answers, originals);
  const give = (at: string, { marks, verdict, sentBack = false }: Answer) => {
    const isPut = marks.length === 0 || answers.target.perform(marks.map((mark) => ({ do: 'add', mark })));
    if (isPut && verdict && !quiet) setSaid({ at, verdict, sentBack, number: (said?.number ?? 0) + 1 });
  };
  const tap = (mark: Mark) => {
    const { asides, ...answer } = tapped(page, mark);
    give(mark.id, answer);
    // Votes that are counted put the thing elsewhere in its column, as a second answer: by another rule.
    give(mark.id, sortedByVotes(page, mark, answer.marks));
    for (const aside of asides) doAside(desk, aside);
  };
  const moveCopy = (copy: Mark, hand: Hand) => {
    const moved = copyMoved(page, copy, hand);
    answers.target.perform([moved === 'gone' ? { do: 'remove', mark: copy.id } : { do: 'add', mark: moved }]);
  };
  const toPage = ({ clientX, clientY }: { clientX: number; clientY: number }): Point => {
    const { left, top } = stage.host.getBoundingClientRect();
    const at = stage.toPage(clientX - left, clientY - top);
    return [at.x, at.y];
  };
  const drop = (mark: Mark, hand: Hand) => give(mark.id, dropped(page, mark, hand));
  // Things that look as they did are not drawn again, but answer on the page as it is by then.
  const latest = useRef({ tap, drop, moveCopy });
  useEffect(() => {
    latest.current = { tap, drop, moveCopy };
  });
  const shared = { page, scale, toPage, pictures: desk.pictures };
  const saidAt = said && page.now(said.at);
  const cells = originals.filter(isCell);
  const things = waits ? [] : originals;
  const copies = waits ? [] : copiesOn(answers, answers.space);
  return (
    <div className="absolute top-0 left-0" style={{ transform: `translate(${x}px, ${y}px)` }}>
      {things.map((mark) => {
        const seen = page.now(mark.id);
        if (!seen || (seen.hidden && !mark.rule?.pair)) return null;
        if (mark.kind === 'text' && seen.kind === 'text' && mark.rule?.fill)
          return (
            <FillField
              key={mark.id}
              mark={mark}
              seen={seen}
              scale={scale}
              cells={cells}
              draft={`doodla.filling ${answers.space} ${mark.id}`}
              onFilled={(words) => give(mark.id, filledIn(page, mark, words))}
            />
          );
        if (mark.rule?.sets && seen.kind === 'plot')
          return (
            <Suspense key={mark.id} fallback={null}>
              <FigureControls
                seen={seen}
                fields={mark.rule.sets}
                scale={scale}
                onSet={(look) => give(mark.id, figureSet(page, mark, look))}
                onProblem={(problem) => desk.tellProblem(problem)}
              />
            </Suspense>
          );
        if (mark.rule?.trace)
          return (
            <TraceField
              key={mark.id}
              mark={mark}
              scale={scale}
              toPage={toPage}
              onTraced={(hand) => give(mark.id, traced(page, mark, hand))}
            />
          );
        if (!mark.rule?.tap && !mark.rule?.moves && !mark.rule?.pair) return null;
        return (
          <AnswerThing
            key={mark.id}
            thing={mark}
            seen={seenTogether({ page, thing: mark })}
            {...shared}
            onTap={() => latest.current.tap(mark)}
            onDrop={(hand) => latest.current.drop(mark, hand)}
          />
        );
      })}
      {copies.map((copy) => {
        const pile = page.original(copy.standIn!.for);
        return (
          pile && (
            <AnswerThing
              key={copy.id}
              thing={pile}
              copy={copy}
              seen={[copy]}
              {...shared}
              onTap={() => undefined}
              onDrop={(hand) => latest.current.moveCopy(copy, hand)}
            />
          )
        );
      })}
      {said && saidAt && <Verdict key={said.number} said={said} mark={saidAt} scale={scale} />}
    </div>
  );
}

/** Says whether an answer is right, by a sign and a word, at what was answered. */
function Verdict({ said, mark, scale }: { said: Said; mark: Mark; scale: number }) {
  const rect = seenBounds(mark);
  const isRight = said.verdict === 'right';
  const Sign = isRight ? Check : said.sentBack ? Undo2 : X;
  return (
    <p
      role="status"
      className={classes(
        'absolute z-10 flex w-max -translate-x-1/2 -translate-y-full items-center gap-1 rounded-xl border-2 px-2 py-1 font-bold shadow-lg',
        isRight ? 'border-ink bg-white text-ink' : 'border-white bg-ink text-white',
      )}
      style={{ left: (rect.x + rect.width / 2) * scale, top: rect.y * scale - 4 }}
    >
      <Sign aria-hidden size={18} />
      {isRight ? t('answers.right') : said.sentBack ? t('answers.sentBack') : t('answers.notRight')}
    </p>
  );
}
