import type { ReadingLanguage } from '@doodla/core';
import { READING_LANGUAGES } from '@doodla/core';
import { useState } from 'react';
import { useStore } from '../../store/useStore';
import { wordsAddress } from '../../canvas/findWords';
import { Choice } from '../../ui/Choice';
import { ProgressBar } from '../../ui/ProgressBar';
import type { ToolDesk } from '../toolWork';
import { readingJobs, readPage } from './readingJobs';
import { t } from '../../words';

const REMEMBERED = 'doodla.readingLanguage';
const LANGUAGES = READING_LANGUAGES.map((value) => ({ value, name: t(`languages.${value}`) }));

/** Has the words of a scanned page read, so that they can be marked; shown where a page has none yet. */
export default function ReadPage({ desk }: { desk: ToolDesk }) {
  useStore(desk.pageId);
  useStore(desk.surfaces.wordsChanged);
  const [language, setLanguage] = useState<ReadingLanguage>(rememberedLanguage);
  const jobs = useStore(readingJobs);
  const { page, surfaces } = desk;
  const address = page && wordsAddress(page);
  if (!page || address === undefined || surfaces.wordsOf(page)?.isEmpty !== true) return null;

  const choose = (chosen: ReadingLanguage) => {
    setLanguage(chosen);
    localStorage.setItem(REMEMBERED, chosen);
  };

  const job = jobs.get(address);
  if (job)
    return (
      <div className="flex flex-col gap-2">
        <ProgressBar
          label={'waiting' in job.progress ? t('tools.waitingForOtherPages') : t('tools.readingTheWords')}
          part={'part' in job.progress ? job.progress.part : 0}
        />
        <button
          type="button"
          onClick={() => job.cancel()}
          className="min-h-11 rounded-xl border-2 border-board-line px-3 font-bold hover:bg-board-light"
        >
          {t('common.cancel')}
        </button>
      </div>
    );
  return (
    <div className="flex flex-col gap-2">
      <p className="text-sm">{t('tools.thisPageIsAPicture')}</p>
      <Choice
        label={t('tools.languageOfThePage')}
        value={language}
        columns={2}
        options={LANGUAGES}
        onChange={choose}
      />
      <button
        type="button"
        onClick={() => void readPage(desk, page, address, language)}
        className="min-h-11 rounded-xl bg-paper px-3 font-bold text-board hover:bg-white"
      >
        {t('tools.readTheWords')}
      </button>
    </div>
  );
}

function rememberedLanguage(): ReadingLanguage {
  const known = localStorage.getItem(REMEMBERED) ?? '';
  return READING_LANGUAGES.find((value) => value === known) ?? 'eng';
}
