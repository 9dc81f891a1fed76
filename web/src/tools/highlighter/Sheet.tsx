import { lazy, Suspense } from 'react';
import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { PercentSlider } from '../../ui/PercentSlider';
import { Slider } from '../../ui/Slider';
import { Switch } from '../../ui/Switch';
import type { ToolDesk } from '../toolWork';

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
        label="Width"
        value={highlighter.width}
        min={6}
        max={80}
        step={1}
        onChange={(width) => set({ width })}
      />
      <PercentSlider label="Opacity" value={highlighter.opacity} onChange={(opacity) => set({ opacity })} />
      <Choice
        label="Way of highlighting"
        value={straightHighlighter ? 'straight' : 'free'}
        columns={2}
        options={[
          { value: 'free', name: 'Free' },
          { value: 'straight', name: 'Straight' },
        ]}
        onChange={(way) => penCase.patch({ straightHighlighter: way === 'straight' })}
      />
      <Switch
        label="Mark whole words where there is text"
        checked={markWords}
        onChange={(value) => penCase.patch({ markWords: value })}
      />
      {markWords && (
        <Choice
          label="How marked words look"
          value={wordsLook}
          columns={2}
          options={[
            { value: 'highlight', name: 'Highlighted' },
            { value: 'underline', name: 'Underlined' },
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
