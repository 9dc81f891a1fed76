import type { Mark } from '@doodla/core';
import { ChartNoAxesColumn, Footprints, Play, RotateCcw } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore, useStoreByFrame } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';
import { answeredPage, originalsOn, startAgain } from './answeredPage';
import { Answers } from './Answers';
import { RuleTags } from './RuleTags';
import { isCrowded } from './tags';
import { anythingGoes } from './solution';
import type { TrialKind } from './Trial';
import { Trial } from './Trial';
import { VerdictSigns } from './VerdictSigns';
import { TurnBar, useTurn } from './TurnBar';

const ResultsDialog = lazy(() => import('./ResultsDialog'));

interface AnswerLayerProps {
  desk: PageDesk;
  stage: Stage;
}

/** What lies over the marks of a page that answer: in a class they are tapped, moved and filled in; while preparing it is shown what they do. */
export default function AnswerLayer({ desk, stage }: AnswerLayerProps) {
  useStoreByFrame(desk.marksChanged);
  const page = useStore(desk.pageId);
  const mode = useStore(desk.room.mode);
  const { tool } = useStore(desk.penCase);
  const originals = originalsOn(desk);
  if (page === undefined || originals.length === 0) return null;
  const shared = { desk, stage, originals };
  if (!desk.classroom) return desk.isTeacher && <Prepared key={page} {...shared} />;
  return <InClass key={page} page={page} arranges={mode === 'write' && tool === 'select'} {...shared} />;
}

interface InClassProps extends PreparedProps {
  page: string;
  /** Whether marks are chosen, so that a teacher sees what they do. */
  arranges: boolean;
}

/** In a class: what is answered, whose turn it is, and for the teacher who has answered what. */
function InClass({ desk, stage, originals, page, arranges }: InClassProps) {
  const { verdicts } = useStore(desk.room.rules);
  const turn = useTurn(desk);
  const [looks, setLooks] = useState(false);
  const isTagged = arranges && desk.isTeacher;
  const waits =
    !desk.isTeacher && desk.space === 'class' && turn !== undefined && turn !== desk.target.actor?.id;
  // Nothing is sent back while it is not to be said what is right.
  const things = verdicts === 'atOnce' ? originals : originals.map(anythingGoes);
  return (
    <>
      {isTagged && <RuleTags originals={originals} stage={stage} desk={desk} />}
      {!isTagged && desk.mayWrite && (
        <Answers
          answers={desk}
          desk={desk}
          stage={stage}
          originals={things}
          quiet={verdicts !== 'atOnce'}
          waits={waits}
        />
      )}
      {verdicts === 'shown' && <ShownVerdicts desk={desk} stage={stage} originals={originals} />}
      <div className="pointer-events-none absolute inset-x-0 bottom-17 z-20 flex justify-center compact:bottom-28">
        <div
          data-bar="answers"
          className="pointer-events-auto flex max-w-[calc(100%-1rem)] flex-wrap justify-center gap-1 rounded-2xl bg-board p-1 text-paper shadow-xl empty:hidden forced-colors:border-2"
        >
          {desk.mayWrite && (desk.isTeacher || desk.space !== 'class') && <AgainButton desk={desk} />}
          {desk.space === 'class' && <TurnBar desk={desk} />}
          {desk.isTeacher && (
            <Button
              look="onBoard"
              icon={<ChartNoAxesColumn aria-hidden size={18} />}
              onClick={() => setLooks(true)}
            >
              {t('answers.results')}
            </Button>
          )}
        </div>
      </div>
      {looks && (
        <Suspense fallback={null}>
          <ResultsDialog desk={desk} originals={originals} page={page} onClose={() => setLooks(false)} />
        </Suspense>
      )}
    </>
  );
}

/** Signs at all answers, where the page lies now. */
function ShownVerdicts({ desk, stage, originals }: PreparedProps) {
  const { scale, x, y } = useStore(stage.view);
  return (
    <div className="absolute top-0 left-0" style={{ transform: `translate(${x}px, ${y}px)` }}>
      <VerdictSigns page={answeredPage(desk, originals)} originals={originals} scale={scale} />
    </div>
  );
}

interface PreparedProps extends AnswerLayerProps {
  originals: readonly Mark[];
}

/** While preparing: what the marks do, and trying it. */
function Prepared({ desk, stage, originals }: PreparedProps) {
  const [trial, setTrial] = useState<TrialKind>();
  const shared = { desk, stage, originals };
  if (trial) return <Trial {...shared} kind={trial} onEnd={() => setTrial(undefined)} />;
  const begin = (kind: TrialKind) => {
    desk.settle();
    setTrial(kind);
  };
  return (
    <>
      <RuleTags originals={originals} stage={stage} desk={desk} />
      <div
        data-bar="answers"
        className="pointer-events-auto absolute bottom-17 left-1/2 z-20 flex w-max -translate-x-1/2 gap-1 rounded-2xl bg-board p-1 text-paper shadow-xl compact:bottom-28 forced-colors:border-2"
      >
        <Button look="onBoard" icon={<Play aria-hidden size={18} />} onClick={() => begin('try')}>
          {t('answers.try')}
        </Button>
        {isCrowded(originals) && (
          <p className="max-w-56 px-2 py-1 text-sm leading-tight">{t('answers.crowded')}</p>
        )}
        {originals.some(({ rule }) => rule?.takes) && (
          <Button look="onBoard" icon={<Footprints aria-hidden size={18} />} onClick={() => begin('record')}>
            {t('answers.showSolution')}
          </Button>
        )}
      </div>
    </>
  );
}

/** Always there on a page that answers, so that the page does not move when somebody does. */
function AgainButton({ desk }: { desk: PageDesk }) {
  const isAnswered = [...desk.target.state.marks.values()].some(
    (mark) => mark.standIn && mark.page === desk.pageId.get() && mark.space === desk.space,
  );
  return (
    <Button
      look="onBoard"
      icon={<RotateCcw aria-hidden size={18} />}
      disabled={!isAnswered}
      onClick={() => startAgain(desk)}
    >
      {t('answers.again')}
    </Button>
  );
}
