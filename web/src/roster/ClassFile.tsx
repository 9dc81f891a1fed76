import { MAX_NAMES, namesIn } from '@doodla/core';
import type { ClassTable, NameColumns } from '@doodla/core/class-table';
import { namesOfTable, withNames } from '@doodla/core/class-table';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { t } from '../words';
import { readClassFile } from './readClassFile';

interface ClassFileProps {
  /** What is in the list now, as pasted. */
  list: string;
  onNames(names: string[]): void;
}

/** A file that was read: which columns hold the names, and who came onto the list from them. */
interface Chosen {
  table: ClassTable;
  columns: NameColumns;
  added: readonly string[];
}

/** Takes the names of a class list out of a CSV file; those who are on the list stay. */
export function ClassFile({ list, onNames }: ClassFileProps) {
  const [chosen, setChosen] = useState<Chosen>();
  const [problem, setProblem] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const abort = useRef<AbortController>(undefined);
  useEffect(() => () => abort.current?.abort(), []);

  const put = (table: ClassTable, columns: NameColumns, replaced: readonly string[]) => {
    const own = namesIn(list).filter((name) => !replaced.includes(name));
    const found = namesOfTable(table, columns);
    const all = withNames(own, found);
    const isCut = Math.max(all.length, table.rows.length) > MAX_NAMES;
    setChosen({ table, columns, added: all.slice(own.length) });
    setProblem(
      found.length === 0
        ? t('roster.noNamesInIt')
        : isCut
          ? t('roster.onlySoManyNames', { most: MAX_NAMES })
          : undefined,
    );
    onNames(all.slice(0, MAX_NAMES));
  };
  const read = async (file: File) => {
    abort.current?.abort();
    const reading = (abort.current = new AbortController());
    try {
      const table = await readClassFile(file, reading.signal);
      put(table, table.names, []);
    } catch (error) {
      if (!reading.signal.aborted) setProblem((error as Error).message);
    }
  };

  return (
    <div className="mb-3">
      <input
        ref={chooser}
        type="file"
        accept=".csv,.tsv,.txt"
        aria-label={t('roster.theListAsAFile')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void read(file);
          event.target.value = '';
        }}
      />
      <Button onClick={() => chooser.current!.click()}>{t('roster.fromAFile')}</Button>
      <Problem>{problem}</Problem>
      {chosen && (
        <ColumnChoice chosen={chosen} onChange={(columns) => put(chosen.table, columns, chosen.added)} />
      )}
    </div>
  );
}

function ColumnChoice({ chosen, onChange }: { chosen: Chosen; onChange(columns: NameColumns): void }) {
  const { table, columns } = chosen;
  const options = [
    { value: -1, name: t('roster.noColumn') },
    ...table.columns.map((example, value) => ({
      value,
      name: t('roster.columnOf', { number: value + 1, example }),
    })),
  ];
  const chosenOf = (value: number) => (value < 0 ? undefined : value);
  return (
    <div className="mt-3 grid gap-x-3 sm:grid-cols-2">
      <SelectField
        label={t('roster.firstNamesAre')}
        value={columns.first ?? -1}
        options={options}
        onChange={(value) => onChange({ ...columns, first: chosenOf(value) })}
      />
      <SelectField
        label={t('roster.familyNamesAre')}
        value={columns.last ?? -1}
        options={options}
        onChange={(value) => onChange({ ...columns, last: chosenOf(value) })}
      />
    </div>
  );
}
