import type { OutlineItem } from '@doodla/core/idea-map';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { t } from '../words';

/** What was typed is there again after a reload, in this window. */
const KEPT_AS = 'doodla.ideaOutline';
/** Most letters that are taken in. */
const MOST = 100_000;

/** An outline that is typed or pasted, and becomes a map. */
export function PasteOutline({ onDone }: { onDone(outline: OutlineItem | undefined): void }) {
  const [text, setText] = useState(() => sessionStorage.getItem(KEPT_AS) ?? '');
  const [problem, setProblem] = useState<string>();
  const make = async () => {
    try {
      const { outlineIn } = await import('./outlineFiles');
      onDone(outlineIn(text, t('ideaMap.middle')));
      sessionStorage.removeItem(KEPT_AS);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <>
      <label htmlFor="idea-outline" className="font-bold">
        {t('ideaMap.outline')}
      </label>
      <textarea
        id="idea-outline"
        rows={9}
        value={text}
        maxLength={MOST}
        placeholder={t('ideaMap.outlineExample')}
        onChange={({ target }) => {
          setText(target.value);
          sessionStorage.setItem(KEPT_AS, target.value);
        }}
        className="w-full rounded-xl border-2 border-board-light bg-white p-2 text-ink"
      />
      <p className="text-sm text-paper/80">{t('ideaMap.outlineHow')}</p>
      {problem !== undefined && (
        <p role="alert" className="rounded-lg bg-paper p-2 text-alarm">
          {problem}
        </p>
      )}
      <div className="flex gap-2">
        <Button look="onBoard" onClick={() => void make()}>
          {t('ideaMap.makeMap')}
        </Button>
        <Button look="onBoard" onClick={() => onDone(undefined)}>
          {t('common.cancel')}
        </Button>
      </div>
    </>
  );
}
