import type { Mark, TemplateId } from '@doodla/core';
import { FORMATS, TEMPLATES, templateOn } from '@doodla/core';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import { drawMark } from '../canvas/markPainter';
import type { PageDesk } from '../room/pageDesk';
import { Modal } from '../ui/Modal';
import { placeTemplate, templateWords } from './placeTemplate';
import { t } from '../words';

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
} as const satisfies Record<TemplateId, readonly [string, string]>;

/** Ready templates: one tap puts one on the shown page, of ordinary marks. */
export default function TemplatesDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const place = (id: TemplateId) => {
    onClose();
    const step = placeTemplate(desk, id);
    if (step === undefined) return;
    toast(t('templates.isOnThePage', { name: t(TEXTS[id][0]) }), {
      duration: UNDO_SHOWN_MS,
      action: { label: t('common.undo'), onClick: () => desk.target.takeBack(step) },
    });
  };
  return (
    <Modal
      title={t('templates.readyTemplates')}
      description={t('templates.oneTapPutsOne')}
      wide
      open
      onOpenChange={onClose}
    >
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-3">
        {TEMPLATES.map((id) => (
          <li key={id}>
            <button
              type="button"
              onClick={() => place(id)}
              className="flex h-full w-full flex-col rounded-xl p-2 text-start hover:bg-paper-dim"
            >
              <TemplatePicture id={id} />
              <span className="mt-2 font-bold">{t(TEXTS[id][0])}</span>
              <span className="text-sm text-ink-soft">{t(TEXTS[id][1])}</span>
            </button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}

function TemplatePicture({ id }: { id: TemplateId }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = FORMATS.wide;
  useEffect(() => {
    const ctx = canvas.current!.getContext('2d')!;
    const scale = WIDTH / width;
    ctx.setTransform(scale, 0, 0, scale, 0, 0);
    ctx.clearRect(0, 0, width, height);
    for (const part of templateOn(id, { x: 0, y: 0, width, height }, templateWords()))
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
