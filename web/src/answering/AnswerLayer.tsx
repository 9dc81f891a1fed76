import type { Mark } from '@doodla/core';
import { Footprints, Play, RotateCcw } from 'lucide-react';
import { useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore, useStoreByFrame } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';
import { originalsOn, startAgain } from './answeredPage';
import { Answers } from './Answers';
import { RuleTags } from './RuleTags';
import type { TrialKind } from './Trial';
import { Trial } from './Trial';

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
  const arranges = desk.isTeacher && mode === 'write' && tool === 'select';
  return (
    <>
      {arranges && <RuleTags originals={originals} stage={stage} />}
      {!arranges && desk.mayWrite && <Answers key={page} answers={desk} {...shared} />}
      {desk.mayWrite && (desk.isTeacher || desk.space !== 'class') && <AgainBar desk={desk} />}
    </>
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
      <RuleTags originals={originals} stage={stage} />
      <div
        data-bar="answers"
        className="pointer-events-auto absolute bottom-17 left-1/2 z-20 flex w-max -translate-x-1/2 gap-1 rounded-2xl bg-board p-1 text-paper shadow-xl compact:bottom-28 forced-colors:border-2"
      >
        <Button look="onBoard" icon={<Play aria-hidden size={18} />} onClick={() => begin('try')}>
          {t('answers.try')}
        </Button>
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
function AgainBar({ desk }: { desk: PageDesk }) {
  const isAnswered = [...desk.target.state.marks.values()].some(
    (mark) => mark.standIn && mark.page === desk.pageId.get() && mark.space === desk.space,
  );
  return (
    <div
      data-bar="answers"
      className="pointer-events-auto absolute bottom-17 left-1/2 z-20 -translate-x-1/2 rounded-2xl bg-board p-1 text-paper shadow-xl compact:bottom-28 forced-colors:border-2"
    >
      <Button
        look="onBoard"
        icon={<RotateCcw aria-hidden size={18} />}
        disabled={!isAnswered}
        onClick={() => startAgain(desk)}
      >
        {t('answers.again')}
      </Button>
    </div>
  );
}
