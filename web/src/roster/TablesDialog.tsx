import type { StudentTable } from '@doodla/core';
import { makeTables, seatedAt, shuffled } from '@doodla/core';
import { Pen, PenOff } from 'lucide-react';
import { useState } from 'react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NameTag } from '../ui/NameTag';
import { NumberField } from '../ui/NumberField';
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
        <NumberField label={t('roster.studentsAtATable')} value={size} min={1} max={30} onChange={setSize} />
        <Button look="main" disabled={present.length === 0} onClick={() => make(shuffled(present))}>
          {t('roster.mixByChance')}
        </Button>
        <Button disabled={present.length === 0} onClick={() => make(present)}>
          {t('roster.inTheirOrder')}
        </Button>
      </div>
      {present.length === 0 && <p>{t('classroom.nobodyHasJoinedYet')}</p>}
      {tables.length > 0 && <TablePens room={room} tables={tables} />}
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

/** Pens up or down, a table at a time. */
function TablePens({ room, tables }: { room: Room; tables: readonly StudentTable[] }) {
  const classroom = room.classroom!;
  return (
    <ul aria-label={t('roster.pensByTable')} className="mb-3 flex flex-wrap gap-2">
      {tables.map(({ id, students }) => {
        const up = students.some((student) => classroom.penUpOf(student));
        return (
          <li key={id}>
            <Button
              aria-pressed={up}
              aria-label={t(up ? 'roster.pensUpAt' : 'roster.pensDownAt', { number: id })}
              icon={
                up ? <Pen aria-hidden size={18} /> : <PenOff aria-hidden size={18} className="text-alarm" />
              }
              disabled={students.length === 0}
              onClick={() => classroom.setPensOf(students, !up)}
            >
              {t('roster.table', { number: id })}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
