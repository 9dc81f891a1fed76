import { barsOf } from '@doodla/core';
import { useQuery } from '@tanstack/react-query';
import { wordsQuery } from '../api/lessons';
import { t } from '../words';
import { optionNames } from '../words/optionNames';

/** What the class was asked before, and how it answered. */
export function AskedBefore({ sitting }: { sitting: string }) {
  const { data } = useQuery(wordsQuery(sitting));
  if (!data || data.polls.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-11 cursor-pointer py-2 font-bold">{t('asking.askedBefore')}</summary>
      <ol>
        {data.polls.map((poll, i) => (
          <li key={poll.id} className="mb-2">
            <p className="font-bold">{poll.question || t('handout.questionNumber', { number: i + 1 })}</p>
            <p>
              {barsOf({ ...poll, options: optionNames(poll) }, poll.answers ?? [])
                .map((bar) => t('handout.answersAre', { ...bar }))
                .join(', ')}
            </p>
          </li>
        ))}
      </ol>
    </details>
  );
}
