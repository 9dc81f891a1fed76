import type { Change, Mark } from '@doodla/core';
import { applyChanges, isStanding, markBounds } from '@doodla/core';
import { Check, RotateCcw, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';
import type { AnswerDesk } from './answeredPage';
import { Answers } from './Answers';
import { sizeOf } from './places';
import { anythingGoes, solutionIn } from './solution';
import { ThingPicture } from './ThingPicture';

/** What a page is tried for: to see how it answers, or to show where things belong. */
export type TrialKind = 'try' | 'record';

interface TrialProps {
  desk: PageDesk;
  stage: Stage;
  originals: readonly Mark[];
  kind: TrialKind;
  onEnd(): void;
}

/** The shown page as a class would have it, tried by whoever prepares it; nothing of that is kept but a solution that is taken. */
export function Trial({ desk, stage, originals, kind, onEnd }: TrialProps) {
  const [marks, setMarks] = useState<ReadonlyMap<string, Mark>>(new Map());
  const things = kind === 'record' ? originals.map(anythingGoes) : originals;
  const answers: AnswerDesk = {
    pageId: desk.pageId,
    space: 'class',
    newMark: () => desk.newMark(),
    layers: desk.layers,
    target: {
      actor: desk.target.actor,
      state: { marks },
      perform(changes: Change[]) {
        const state = { pages: new Map(), marks: new Map(marks) };
        applyChanges(state, changes);
        setMarks(state.marks);
        return 'tried';
      },
    },
  };
  const keep = () => {
    const changes = solutionIn(originals, marks);
    if (changes.length === 0) return desk.tellProblem(t('answers.nothingPlaced'));
    if (desk.target.perform(changes)) onEnd();
  };
  return (
    <>
      <TrialPage desk={desk} stage={stage} marks={marks} />
      <Answers answers={answers} desk={desk} stage={stage} originals={things} quiet={kind === 'record'} />
      <div
        role="group"
        aria-label={t(kind === 'try' ? 'answers.trying' : 'answers.recording')}
        data-bar="answers"
        className="pointer-events-auto absolute bottom-17 left-1/2 z-20 flex w-max max-w-[calc(100%-1rem)] -translate-x-1/2 flex-wrap justify-center gap-1 rounded-2xl bg-board p-1 text-paper shadow-xl compact:bottom-28 forced-colors:border-2"
      >
        <Button
          look="onBoard"
          icon={<RotateCcw aria-hidden size={18} />}
          disabled={marks.size === 0}
          onClick={() => setMarks(new Map())}
        >
          {t('answers.again')}
        </Button>
        {kind === 'record' && (
          <Button look="onBoard" icon={<Check aria-hidden size={18} />} onClick={keep}>
            {t('answers.takeSolution')}
          </Button>
        )}
        <Button look="onBoard" icon={<X aria-hidden size={18} />} onClick={onEnd}>
          {t('answers.stopTrying')}
        </Button>
      </div>
    </>
  );
}

/** The page with what is to be seen of it at first, and what has been made of that. */
function TrialPage({
  desk,
  stage,
  marks,
}: {
  desk: PageDesk;
  stage: Stage;
  marks: ReadonlyMap<string, Mark>;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { scale, x, y } = useStore(stage.view);
  const { page } = desk;
  useEffect(() => {
    const { current } = canvas;
    if (!current || !page) return undefined;
    let isWanted = true;
    const drawn = document.createElement('canvas');
    const width = Math.round(desk.extentOf(page).width * scale * window.devicePixelRatio);
    drawThumbnail(drawn, page, desk, width, (mark) => isStanding(mark, 'class', marks)).then(
      () => {
        if (!isWanted) return;
        current.width = drawn.width;
        current.height = drawn.height;
        current.getContext('2d')?.drawImage(drawn, 0, 0);
      },
      (error: Error) => desk.tellProblem(error.message),
    );
    return () => {
      isWanted = false;
    };
  }, [desk, page, scale, marks]);
  if (!page) return null;
  const extent = desk.extentOf(page);
  const patches = desk.layers
    .flatMap((layer) => layer.on(page.id).all())
    .filter(({ kind }) => kind === 'patch');
  const above = [...patches, ...marks.values()].filter((mark) => isStanding(mark, 'class', marks));
  return (
    <div className="absolute top-0 left-0" style={{ transform: `translate(${x}px, ${y}px)` }}>
      <canvas
        ref={canvas}
        aria-hidden
        className="pointer-events-auto absolute max-w-none"
        style={sizeOf(extent, scale)}
      />
      {above.map((mark) => {
        const rect = markBounds(mark);
        return (
          <span key={mark.id} className="absolute" style={sizeOf(rect, scale)}>
            <ThingPicture marks={[mark]} rect={rect} scale={scale} pictures={desk.pictures} />
          </span>
        );
      })}
    </div>
  );
}
