import { lazy, Suspense } from 'react';
import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { PercentSlider } from '../../ui/PercentSlider';
import { Slider } from '../../ui/Slider';
import { Switch } from '../../ui/Switch';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

const ReadPage = lazy(() => import('./ReadPage'));

/** What can be chosen for the highlighter. */
export default function HighlighterSheet({ desk }: { desk: ToolDesk }) {
  const { penCase } = desk;
  const { highlighter, straightHighlighter, markWords, wordsLook } = useStore(penCase);
  const set = (part: Partial<typeof highlighter>) =>
    penCase.patch({ highlighter: { ...highlighter, ...part } });
  return (
    <>
      <Slider
        label={t('common.width')}
        value={highlighter.width}
        min={6}
        max={80}
        step={1}
        onChange={(width) => set({ width })}
      />
      <PercentSlider
        label={t('common.opacity')}
        value={highlighter.opacity}
        onChange={(opacity) => set({ opacity })}
      />
      <Choice
        label={t('tools.wayOfHighlighting')}
        value={straightHighlighter ? 'straight' : 'free'}
        columns={2}
        options={[
          { value: 'free', name: t('tools.free') },
          { value: 'straight', name: t('tools.straight') },
        ]}
        onChange={(way) => penCase.patch({ straightHighlighter: way === 'straight' })}
      />
      <Switch
        label={t('tools.markWholeWordsWhereThere')}
        checked={markWords}
        onChange={(value) => penCase.patch({ markWords: value })}
      />
      {markWords && (
        <Choice
          label={t('tools.howMarkedWordsLook')}
          value={wordsLook}
          columns={2}
          options={[
            { value: 'highlight', name: t('tools.highlighted') },
            { value: 'underline', name: t('tools.underlined') },
          ]}
          onChange={(value) => penCase.patch({ wordsLook: value })}
        />
      )}
      {markWords && desk.isTeacher && (
        <Suspense>
          <ReadPage desk={desk} />
        </Suspense>
      )}
    </>
  );
}
