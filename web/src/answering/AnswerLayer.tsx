import type { Mark, Point, Space } from '@doodla/core';
import { markBounds } from '@doodla/core';
import type { Answer, Aside } from '@doodla/core/answers';
import { copyMoved, dropped, filledIn, tapped } from '@doodla/core/answers';
import { Check, RotateCcw, Undo2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore, useStoreByFrame } from '../store/useStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { t } from '../words';
import { answeredPage, copiesOn, originalsOn, startAgain } from './answeredPage';
import { AnswerThing } from './AnswerThing';
import { FillField } from './FillField';
import { RuleTags } from './RuleTags';

/** So long it is said whether an answer is right, milliseconds. */
const SAID_MS = 3000;

interface AnswerLayerProps {
  desk: PageDesk;
  stage: Stage;
}

/** What was said of an answer last. */
interface Said extends Pick<Answer, 'verdict' | 'sentBack'> {
  /** The mark that it is said at. */
  at: string;
  number: number;
}

/** What lies over the marks of a page that answer: in a class they are tapped, moved and filled in; while preparing it is shown what they do. */
export default function AnswerLayer({ desk, stage }: AnswerLayerProps) {
  useStoreByFrame(desk.marksChanged);
  const page = useStore(desk.pageId);
  const mode = useStore(desk.room.mode);
  const { tool } = useStore(desk.penCase);
  const originals = originalsOn(desk);
  if (page === undefined || originals.length === 0) return null;
  const arranges = desk.isTeacher && (!desk.classroom || (mode === 'write' && tool === 'select'));
  return (
    <>
      {arranges && <RuleTags originals={originals} stage={stage} />}
      {!arranges && <Answers key={page} desk={desk} stage={stage} originals={originals} />}
      {desk.classroom && <AgainBar desk={desk} space={desk.space} />}
    </>
  );
}

function Answers({ desk, stage, originals }: AnswerLayerProps & { originals: readonly Mark[] }) {
  const { scale, x, y } = useStore(stage.view);
  useStore(desk.classroom!.state);
  const [said, setSaid] = useState<Said>();
  useEffect(() => {
    if (!said) return undefined;
    const timer = setTimeout(() => setSaid(undefined), SAID_MS);
    return () => clearTimeout(timer);
  }, [said]);
  if (!desk.mayWrite) return null;
  const page = answeredPage(desk, originals);
  const give = (at: string, { marks, verdict, sentBack = false }: Answer) => {
    const isPut = marks.length === 0 || desk.target.perform(marks.map((mark) => ({ do: 'add', mark })));
    if (isPut && verdict) setSaid({ at, verdict, sentBack, number: (said?.number ?? 0) + 1 });
  };
  const tap = (mark: Mark) => {
    const { asides, ...answer } = tapped(page, mark);
    give(mark.id, answer);
    for (const aside of asides) doAside(desk, aside);
  };
  const moveCopy = (copy: Mark, hand: { from: Point; to: Point }) => {
    const moved = copyMoved(page, copy, hand);
    desk.target.perform([moved === 'gone' ? { do: 'remove', mark: copy.id } : { do: 'add', mark: moved }]);
  };
  const toPage = ({ clientX, clientY }: { clientX: number; clientY: number }): Point => {
    const { left, top } = stage.host.getBoundingClientRect();
    const at = stage.toPage(clientX - left, clientY - top);
    return [at.x, at.y];
  };
  const shared = { page, scale, toPage, pictures: desk.pictures };
  const saidAt = said && page.now(said.at);
  return (
    <div className="absolute top-0 left-0" style={{ transform: `translate(${x}px, ${y}px)` }}>
      {originals.map((mark) => {
        const seen = page.now(mark.id);
        if (!seen || seen.hidden) return null;
        if (mark.kind === 'text' && seen.kind === 'text' && mark.rule?.fill)
          return (
            <FillField
              key={mark.id}
              mark={mark}
              seen={seen}
              scale={scale}
              onFilled={(words) => give(mark.id, filledIn(page, mark, words))}
            />
          );
        if (!mark.rule?.tap && !mark.rule?.moves) return null;
        return (
          <AnswerThing
            key={mark.id}
            thing={mark}
            {...shared}
            onTap={() => tap(mark)}
            onDrop={(hand) => give(mark.id, dropped(page, mark, hand))}
          />
        );
      })}
      {copiesOn(desk, desk.space).map((copy) => {
        const pile = page.original(copy.standIn!.for);
        return (
          pile && (
            <AnswerThing
              key={copy.id}
              thing={pile}
              copy={copy}
              {...shared}
              onTap={() => undefined}
              onDrop={(hand) => moveCopy(copy, hand)}
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
  const rect = markBounds(mark);
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

function AgainBar({ desk, space }: { desk: PageDesk; space: Space }) {
  const isOwn = desk.isTeacher || space !== 'class';
  const isAnswered = [...desk.target.state.marks.values()].some(
    (mark) => mark.standIn && mark.page === desk.pageId.get() && mark.space === space,
  );
  if (!isOwn || !isAnswered || !desk.mayWrite) return null;
  return (
    <div
      data-bar="answers"
      className="pointer-events-auto absolute bottom-17 left-1/2 z-20 -translate-x-1/2 rounded-2xl bg-board p-1 text-paper shadow-xl compact:bottom-28 forced-colors:border-2"
    >
      <Button look="onBoard" icon={<RotateCcw aria-hidden size={18} />} onClick={() => startAgain(desk)}>
        {t('answers.again')}
      </Button>
    </div>
  );
}

function doAside(desk: PageDesk, aside: Aside): void {
  if (aside.do === 'page') return desk.turnTo(aside.page);
  if (!('speechSynthesis' in window)) return desk.room.tellNotice(aside.text);
  const words = new SpeechSynthesisUtterance(aside.text);
  words.lang = aside.language;
  speechSynthesis.cancel();
  speechSynthesis.speak(words);
}
