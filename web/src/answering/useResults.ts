import type { Mark } from '@doodla/core';
import type { AnswerItem } from '@doodla/core/answers';
import { itemsOf } from '@doodla/core/answers';
import { useEffect, useMemo, useState } from 'react';
import { Copies } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { answeredPage } from './answeredPage';
import type { ResultRow } from './resultRows';
import { rowsOfCopies, rowsTogether } from './resultRows';

/** How often it is looked at what was answered, milliseconds. */
const LOOK_EVERY_MS = 500;

export interface Results {
  items: readonly AnswerItem[];
  rows: readonly ResultRow[];
  /** Whether all answer together, so that the first row is of all of them. */
  together: boolean;
}

/** Who has answered what on the shown page, as it is now, looked at a few times in a second. */
export function useResults(desk: PageDesk, originals: readonly Mark[], page: string): Results {
  const ids = originals.map(({ id }) => id).join();
  // The marks themselves are new objects whenever any is touched; what is asked is the same until one comes or goes.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const items = useMemo(() => itemsOf(originals, answeredPage(desk, originals).original), [desk, ids]);
  const [results, setResults] = useState<Results>({ items, rows: [], together: true });
  useEffect(() => {
    const { room } = desk;
    const copies = new Copies(room);
    void room.target.need(page);
    const look = () => setResults(resultsNow(desk, copies, { items, originals, page }));
    look();
    const timer = setInterval(look, LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      copies.close();
    };
    // As above.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [desk, items, page]);
  return results;
}

function resultsNow(
  { room, target }: PageDesk,
  copies: Copies,
  { items, originals, page }: { items: readonly AnswerItem[]; originals: readonly Mark[]; page: string },
): Results {
  const looked = { items, originals, marks: target.state.marks };
  const state = room.classroom!.state.get();
  const together = state?.ways[page] === undefined;
  const rows = together
    ? rowsTogether(looked, state?.people ?? [], t('answers.allTogether'))
    : rowsOfCopies(
        looked,
        copies
          .of(page)
          .map(({ space, people }) => ({ space, name: people.map(({ name }) => name).join(', ') })),
      );
  return { items, rows, together };
}
