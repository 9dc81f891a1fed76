import type { Mark } from '@doodla/core';
import { tableFile } from '@doodla/core/class-table';
import type { AnswerItem, ItemResult } from '@doodla/core/answers';
import { countOf } from '@doodla/core/answers';
import { Check, Download, X } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { saveFile } from '../handout/saveFile';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import type { ResultRow, TableWords } from './resultRows';
import { tableOf } from './resultRows';
import { useResults } from './useResults';
import { VerdictChoice } from './VerdictChoice';

const ResultChart = lazy(() => import('./ResultChart'));

const STATES = {
  open: 'answers.open',
  right: 'answers.right',
  wrong: 'answers.notRight',
} as const satisfies Record<ItemResult['state'], string>;

interface ResultsDialogProps {
  desk: PageDesk;
  originals: readonly Mark[];
  page: string;
  onClose(): void;
}

const tableWords = (): TableWords => ({
  who: t('answers.who'),
  right: t('answers.rightCount'),
  first: t('answers.rightAtFirst'),
  wrong: t('answers.wrongCount'),
  minutes: t('answers.minutes'),
  states: { open: t(STATES.open), right: t(STATES.right), wrong: t(STATES.wrong) },
});

/** Who has answered what on the page, and where the class goes wrong, live. */
export default function ResultsDialog({ desk, originals, page, onClose }: ResultsDialogProps) {
  const [named, setNamed] = useState(true);
  const { items, rows: known, together } = useResults(desk, originals, page);
  const rows = known.map((row, i) =>
    named || (together && i === 0)
      ? row
      : { ...row, name: t('answers.student', { number: i + (together ? 0 : 1) }) },
  );
  const counted = together ? rows.slice(0, 1) : rows;
  const counts = items.map((_, i) => countOf(counted.map(({ results }) => results[i]!)));
  const save = () => {
    const title = desk.pages.get().find(({ id }) => id === page)?.title ?? '';
    const file = new Blob([tableFile(tableOf(items, rows, tableWords()))], { type: 'text/csv' });
    saveFile(file, `${title || t('answers.results')}.csv`);
  };
  return (
    <Modal
      title={t('answers.results')}
      description={t('answers.resultsHow')}
      open
      wide
      onOpenChange={onClose}
    >
      <VerdictChoice room={desk.room} />
      <div className="mt-4 flex flex-wrap items-center gap-x-6">
        <Tick checked={named} onChange={setNamed}>
          {t('answers.withNames')}
        </Tick>
        <Button className="mb-4" icon={<Download aria-hidden size={18} />} onClick={save}>
          {t('answers.saveTable')}
        </Button>
      </div>
      {items.length === 0 ? <p>{t('answers.nothingAsked')}</p> : <Table items={items} rows={rows} />}
      {items.length > 0 && (
        <>
          <h3 className="mt-6 mb-2 text-lg font-bold">{t('answers.whereWrong')}</h3>
          <Suspense fallback={null}>
            <ResultChart items={items} counts={counts} />
          </Suspense>
          <ul aria-label={t('answers.whereWrong')} className="sr-only">
            {items.map(({ id, name }, i) => (
              <li key={id}>{t('answers.itemCount', { name, ...counts[i]! })}</li>
            ))}
          </ul>
        </>
      )}
    </Modal>
  );
}

/** What is counted of each. */
const FIGURES = [
  'answers.rightCount',
  'answers.rightAtFirst',
  'answers.wrongCount',
  'answers.minutes',
] as const;

/** A row for each, with a sign for each item. */
function Table({ items, rows }: { items: readonly AnswerItem[]; rows: readonly ResultRow[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse text-start">
        <thead>
          <tr className="border-b-2 border-paper-line text-sm">
            <th scope="col" className="py-1 pe-4 text-start">
              {t('answers.who')}
            </th>
            {FIGURES.map((name) => (
              <th key={name} scope="col" className="px-2">
                {t(name)}
              </th>
            ))}
            {items.map(({ id, name }, i) => (
              <th key={id} scope="col" className="min-w-8 px-1" title={name}>
                <span className="sr-only">{name}</span>
                <span aria-hidden>{i + 1}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, name, summary, results }) => (
            <tr key={id} className="border-b border-paper-line text-center">
              <th scope="row" className="py-1 pe-4 text-start whitespace-nowrap">
                {name}
              </th>
              <td>
                {summary.right} / {items.length}
              </td>
              <td>{summary.first}</td>
              <td>{summary.tries}</td>
              <td className="tabular-nums">{summary.took === undefined ? '–' : clock(summary.took)}</td>
              {results.map((result, i) => (
                <td key={items[i]!.id}>
                  <Sign result={result} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Sign({ result: { state, tries } }: { result: ItemResult }) {
  const said =
    tries > 0 ? t('answers.stateTries', { state: t(STATES[state]), count: tries }) : t(STATES[state]);
  return (
    <span role="img" aria-label={said} title={said} className="inline-flex items-center justify-center">
      {state === 'right' && <Check aria-hidden size={18} />}
      {state === 'wrong' && <X aria-hidden size={18} className="text-alarm" />}
      {state === 'open' && <span aria-hidden>·</span>}
      {tries > 0 && <sup aria-hidden>{tries}</sup>}
    </span>
  );
}

function clock(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
