import { lazy, Suspense, useState } from 'react';
import { englishWords } from '../../desk/ownHand';
import type { TypeDesk } from '../../desk/typeWriting';
import { useStore } from '../../store/useStore';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { PercentSlider } from '../../ui/PercentSlider';
import { Slider } from '../../ui/Slider';
import { Switch } from '../../ui/Switch';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

const TeachHandDialog = lazy(() => import('./TeachHandDialog'));

const NATURE_NAMES = {
  pen: t('tools.pen'),
  pencil: t('tools.pencil'),
  marker: t('tools.marker'),
  chalk: t('tools.chalk'),
} as const;

type PenDesk = Pick<ToolDesk, 'penCase'> & TypeDesk;

/** Makes what was written last even; how that is done is fetched when it is first wanted. */
async function evenJustWritten(desk: PenDesk): Promise<void> {
  const even = await import('../../desk/evenWriting').catch(() => undefined);
  if (!even) return desk.tellProblem(t('shapes.notReached'));
  await even.evenWriting(desk, even.justWritten(desk));
}

/** Types out what was written last. */
async function typeJustWritten(desk: PenDesk): Promise<void> {
  const [even, writing] = await Promise.all([
    import('../../desk/evenWriting'),
    import('../../desk/typeWriting'),
  ]).catch(() => [undefined, undefined]); // Told in the next line.
  if (!even || !writing) return desk.tellProblem(t('shapes.notReached'));
  await writing.typeWriting(desk, even.justWritten(desk));
}

/** What can be chosen for the pen. */
export default function PenSheet({ desk }: { desk: PenDesk }) {
  const { penCase } = desk;
  const { pen, steadying, neat, finger, otherHand } = useStore(penCase);
  const withWords = useStore(englishWords);
  const [isTeaching, setTeaching] = useState(false);
  const set = (part: Partial<typeof pen>) => penCase.patch({ pen: { ...pen, ...part } });
  return (
    <>
      <Choice
        label={t('tools.kindOfPen')}
        value={pen.nature}
        columns={2}
        options={Object.entries(NATURE_NAMES).map(([value, name]) => ({
          value: value as typeof pen.nature,
          name,
        }))}
        onChange={(nature) => set({ nature })}
      />
      <Slider
        label={t('common.width')}
        value={pen.width}
        min={1}
        max={40}
        step={0.5}
        onChange={(width) => set({ width })}
      />
      <PercentSlider
        label={t('common.opacity')}
        value={pen.opacity}
        onChange={(opacity) => set({ opacity })}
      />
      <Slider
        label={t('tools.smoothShakyLines')}
        value={Math.round(steadying * 100)}
        min={0}
        max={90}
        step={5}
        unit=" %"
        onChange={(value) => penCase.patch({ steadying: value / 100 })}
      />
      <Switch
        label={t('shapes.whileDrawing')}
        checked={neat}
        onChange={(on) => penCase.patch({ neat: on })}
      />
      <p className="text-sm">{t('shapes.restHint')}</p>
      <Button look="onBoard" onClick={() => void evenJustWritten(desk)}>
        {t('shapes.evenJustWritten')}
      </Button>
      <Button look="onBoard" onClick={() => void typeJustWritten(desk)}>
        {t('writing.typeJustWritten')}
      </Button>
      <Switch label={t('writing.englishWords')} checked={withWords} onChange={(on) => englishWords.set(on)} />
      <Button look="onBoard" onClick={() => setTeaching(true)}>
        {t('writing.teach')}
      </Button>
      <Suspense>
        {isTeaching && <TeachHandDialog isTeacher={desk.isTeacher} onClose={() => setTeaching(false)} />}
      </Suspense>
      <p className="text-sm">{t('tools.whenYouWriteWithA')}</p>
      <Choice
        label={t('tools.whatAFingerDoesWhen')}
        value={finger}
        columns={3}
        options={[
          { value: 'write', name: t('tools.writes') },
          { value: 'move', name: t('tools.moves') },
          { value: 'nothing', name: t('tools.rests') },
        ]}
        onChange={(value) => penCase.patch({ finger: value })}
      />
      <Switch
        label={t('tools.twoPeopleWriteASecond')}
        checked={otherHand !== null}
        onChange={(on) => penCase.patch({ otherHand: on ? penCase.get().ready[1]! : null })}
      />
    </>
  );
}
