import type { Mark } from '@doodla/core';
import { FORMATS } from '@doodla/core';
import { StickyNote } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import { drawMark } from '../canvas/markPainter';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { t } from '../words';
import { DragCard } from './DragCard';
import type { ReadyId } from './readyTemplates';
import { hasCards, placeReady, placeWithCards, READY, readyMarks } from './readyTemplates';

const WIDTH = 420;
const UNDO_SHOWN_MS = 15_000;

/** Each with what it is called and two lines on how it is used. */
const TEXTS = {
  ideas: ['templates.ideas', 'templates.ideasUse'],
  knowWantLearned: ['templates.knowWantLearned', 'templates.knowWantLearnedUse'],
  twoCircles: ['templates.twoCircles', 'templates.twoCirclesUse'],
  twoColumns: ['templates.twoColumns', 'templates.twoColumnsUse'],
  weekPlan: ['templates.weekPlan', 'templates.weekPlanUse'],
  mindMap: ['templates.mindMap', 'templates.mindMapUse'],
  storyBoard: ['templates.storyBoard', 'templates.storyBoardUse'],
  lookingBack: ['templates.lookingBack', 'templates.lookingBackUse'],
  steps: ['templates.steps', 'templates.stepsUse'],
  comparison: ['templates.comparison', 'templates.comparisonUse'],
  coordinates: ['templates.coordinates', 'templates.coordinatesUse'],
  board: ['exercises.board', 'templates.boardUse'],
  voteBoard: ['exercises.voteBoard', 'templates.voteBoardUse'],
} as const satisfies Record<ReadyId, readonly [string, string]>;

/** Ready templates: one tap puts one on the shown page, of ordinary marks. */
export default function TemplatesPart({ desk }: { desk: PageDesk }) {
  const place = (id: ReadyId, put: typeof placeReady) => {
    const step = put(desk, id);
    if (step === undefined) return;
    toast(t('templates.isOnThePage', { name: t(TEXTS[id][0]) }), {
      duration: UNDO_SHOWN_MS,
      action: { label: t('common.undo'), onClick: () => desk.target.takeBack(step) },
    });
  };
  return (
    <div className="min-h-0 grow overflow-y-auto px-3 pb-3">
      <p className="mb-2 text-sm text-ink-soft">{t('templates.oneTapPutsOne')}</p>
      <ul aria-label={t('templates.readyTemplates')} className="flex flex-col gap-2">
        {READY.map((id) => (
          <li key={id}>
            <DragCard desk={desk} picture={<TemplatePicture id={id} />} onUse={() => place(id, placeReady)}>
              <span className="mt-2 font-bold">{t(TEXTS[id][0])}</span>
              <span className="text-sm text-ink-soft">{t(TEXTS[id][1])}</span>
            </DragCard>
            {hasCards(id) && (
              <Button
                look="plain"
                icon={<StickyNote aria-hidden size={18} />}
                aria-label={t('templates.withCards', { name: t(TEXTS[id][0]) })}
                onClick={() => place(id, placeWithCards)}
              >
                {t('templates.withCardsShort')}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

function TemplatePicture({ id }: { id: ReadyId }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = FORMATS.wide;
  useEffect(() => {
    const ctx = canvas.current!.getContext('2d')!;
    const scale = WIDTH / width;
    ctx.setTransform(scale, 0, 0, scale, 0, 0);
    ctx.clearRect(0, 0, width, height);
    for (const part of readyMarks(id, { x: 0, y: 0, width, height }))
      drawMark(ctx, { ...part, id: '', page: '' } as Mark);
  }, [id, width, height]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={WIDTH}
      height={Math.round((WIDTH * height) / width)}
      className="w-full rounded-lg border-2 border-paper-line bg-white"
    />
  );
}
