import type { StudentTable } from '@doodla/core';
import { makeTables, seatedAt, shuffled } from '@doodla/core';
import { Pen, PenOff } from 'lucide-react';
import { useState } from 'react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NumberField } from '../ui/NumberField';
import { PaperChoice } from '../ui/PaperChoice';
import { t } from '../words';
import { SeatPlan } from './SeatPlan';

type By = 'size' | 'count';

const BY_NAMES: Readonly<Record<By, string>> = { size: t('roster.bySize'), count: t('roster.howMany') };

/** Seats students at tables: so many at each or so many tables, by chance or in their order, and by dragging names. */
export default function TablesDialog({ room, onClose }: { room: Room; onClose(): void }) {
  const classroom = room.classroom!;
  const { people = [], tables = [] } = useStore(classroom.state) ?? {};
  const [by, setBy] = useState<By>('size');
  const [number, setNumber] = useState(4);
  const present = people.filter(({ here }) => here).map(({ id }) => id);
  const make = (order: readonly string[]) =>
    classroom.seatAt(makeTables(order, by === 'size' ? { size: number } : { count: number }));
  return (
    <Modal
      title={t('roster.tables')}
      description={t('roster.groupsThatShareAPage')}
      open
      onOpenChange={onClose}
    >
      <PaperChoice label={t('roster.makeTables')} value={by} names={BY_NAMES} onChange={setBy} />
      <div className="my-4 flex flex-wrap items-center gap-3">
        <NumberField label={BY_NAMES[by]} value={number} min={1} max={30} onChange={setNumber} />
        <Button look="main" disabled={present.length === 0} onClick={() => make(shuffled(present))}>
          {t('roster.mixByChance')}
        </Button>
        <Button disabled={present.length === 0} onClick={() => make(present)}>
          {t('roster.inTheirOrder')}
        </Button>
      </div>
      {present.length === 0 && <p>{t('classroom.nobodyHasJoinedYet')}</p>}
      {tables.length > 0 && (
        <>
          <TablePens room={room} tables={tables} />
          <SeatPlan
            people={people}
            tables={tables}
            onSeat={(student, table) => classroom.seatAt(seatedAt(tables, student, table))}
          />
        </>
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
