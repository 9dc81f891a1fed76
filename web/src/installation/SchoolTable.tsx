import type { SchoolFigures } from '@doodla/core';
import { useState } from 'react';
import { classes } from '../ui/classes';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { dayOf } from '../words/dates';
import type { Order } from './arrangedSchools';
import { arrangedSchools, FIGURES, ORDERS, totals } from './arrangedSchools';
import { gigabytes } from '../ui/gigabytes';

const HEADS: Record<Order, string> = {
  name: t('installation.school'),
  teachers: t('school.teachers'),
  lessons: t('installation.lessons'),
  classes: t('installation.classes'),
  students: t('installation.students'),
  bytes: t('installation.files'),
  usedAt: t('installation.lastUsed'),
};
/** More schools than are seen at once are looked for by their names. */
const SEEN_AT_ONCE = 8;

interface SchoolTableProps {
  schools: readonly SchoolFigures[];
  onChoose(id: string): void;
}

/** The schools with their figures; a head sorts by its column. */
export function SchoolTable({ schools, onChoose }: SchoolTableProps) {
  const [order, setOrder] = useState<Order>('name');
  const [words, setWords] = useState('');
  const all = totals(schools);
  return (
    <>
      {schools.length > SEEN_AT_ONCE && (
        <TextField
          label={t('installation.find')}
          type="search"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      )}
      <div className="overflow-x-auto rounded-xl bg-white shadow">
        <table className="w-full text-start">
          <thead className="bg-paper-dim">
            <tr>
              {ORDERS.map((each) => (
                <th
                  key={each}
                  scope="col"
                  aria-sort={each === order ? (each === 'name' ? 'ascending' : 'descending') : 'none'}
                  className={each === 'name' ? 'p-1 text-start' : 'p-1 text-end'}
                >
                  <button
                    type="button"
                    className={classes(
                      'min-h-11 rounded-lg px-2 font-bold hover:bg-paper-line',
                      each === 'name' ? 'text-start' : 'text-end',
                    )}
                    onClick={() => setOrder(each)}
                  >
                    {HEADS[each]}
                    {each === order && <span aria-hidden> {each === 'name' ? '↑' : '↓'}</span>}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {arrangedSchools(schools, words, order).map((school) => (
              <SchoolRow key={school.id} school={school} onChoose={onChoose} />
            ))}
          </tbody>
          <tfoot className="border-t-2 border-paper-line font-bold">
            <tr>
              <th scope="row" className="p-3 text-start">
                {t('installation.together', { count: schools.length })}
              </th>
              {FIGURES.map((figure) => (
                <td key={figure} className="p-3 text-end tabular-nums">
                  {all[figure]}
                </td>
              ))}
              <td className="p-3 text-end whitespace-nowrap tabular-nums">{gigabytes(all.bytes)} GB</td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
    </>
  );
}

function SchoolRow({ school, onChoose }: { school: SchoolFigures; onChoose(id: string): void }) {
  const { id, name, slug, closedAt, usedAt, bytes, maxBytes } = school;
  const size = `${gigabytes(bytes)}${maxBytes === null ? '' : ` / ${gigabytes(maxBytes)}`} GB`;
  return (
    <tr className="border-t border-paper-line">
      <th scope="row" className="p-2 text-start font-normal">
        <button
          type="button"
          className="min-h-11 min-w-40 rounded-lg px-2 text-start font-bold underline hover:bg-paper-dim"
          onClick={() => onChoose(id)}
        >
          {name || t('installation.unnamed')}
        </button>
        {closedAt !== null && (
          <span className="ms-2 rounded-lg border-2 border-alarm px-2 text-sm font-bold text-alarm">
            {t('installation.closed')}
          </span>
        )}
        <p className="px-2 text-sm break-all text-ink-soft">/at/{slug}</p>
      </th>
      {FIGURES.map((figure) => (
        <td key={figure} className="p-3 text-end tabular-nums">
          {school[figure]}
        </td>
      ))}
      <td
        className={classes(
          'p-3 text-end whitespace-nowrap tabular-nums',
          maxBytes !== null && bytes >= maxBytes && 'font-bold text-alarm',
        )}
      >
        {size}
      </td>
      <td className="p-3 text-end whitespace-nowrap">{usedAt === null ? '–' : dayOf(usedAt)}</td>
    </tr>
  );
}
