import { makeTables, seatedAt, shuffled } from '@doodla/core';
import { useState } from 'react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';

/** Seats students at tables: so many at each, by chance or in their order, and by hand. */
export default function TablesDialog({ room, onClose }: { room: Room; onClose(): void }) {
  const classroom = room.classroom!;
  const { people = [], tables = [] } = useStore(classroom.state) ?? {};
  const [size, setSize] = useState(4);
  const present = people.filter(({ here }) => here).map(({ id }) => id);
  const make = (order: readonly string[]) => classroom.seatAt(makeTables(order, { size }));
  const tableOf = (student: string) => tables.find(({ students }) => students.includes(student))?.id ?? '';
  return (
    <Modal
      title={t('roster.tables')}
      description={t('roster.groupsThatShareAPage')}
      open
      onOpenChange={onClose}
    >
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          <span className="font-bold">{t('roster.studentsAtATable')}</span>
          <input
            type="number"
            min={1}
            max={30}
            value={size}
            onChange={(event) => setSize(Math.min(30, Math.max(1, event.target.valueAsNumber || 1)))}
            className="min-h-11 w-20 rounded-xl border-2 border-paper-line bg-white px-3"
          />
        </label>
        <Button look="main" disabled={present.length === 0} onClick={() => make(shuffled(present))}>
          {t('roster.mixByChance')}
        </Button>
        <Button disabled={present.length === 0} onClick={() => make(present)}>
          {t('roster.inTheirOrder')}
        </Button>
      </div>
      {present.length === 0 && <p>{t('classroom.nobodyHasJoinedYet')}</p>}
      {tables.length > 0 && (
        <ul>
          {people.map((person) => (
            <li key={person.id} className="flex min-h-12 items-center gap-3">
              <NameTag {...person} />
              <span className="min-w-0 grow truncate">{person.name}</span>
              <select
                aria-label={t('roster.tableOf', { name: person.name })}
                value={tableOf(person.id)}
                onChange={(event) => classroom.seatAt(seatedAt(tables, person.id, event.target.value))}
                className="min-h-11 rounded-xl border-2 border-paper-line bg-white px-2"
              >
                <option value="">{t('roster.noTable')}</option>
                {tables.map(({ id }) => (
                  <option key={id} value={id}>
                    {t('roster.table', { number: id })}
                  </option>
                ))}
              </select>
            </li>
          ))}
        </ul>
      )}
    </Modal>
  );
}
