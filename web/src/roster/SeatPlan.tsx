import type { DragEndEvent } from '@dnd-kit/core';
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import type { Person, StudentTable } from '@doodla/core';
import type { ReactNode } from 'react';
import { classes } from '../ui/classes';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';

/** A name is dragged only after the pointer has gone so far; pixels. */
const DRAG_DISTANCE = 6;

interface SeatPlanProps {
  people: readonly Person[];
  tables: readonly StudentTable[];
  /** Seats a student at a table; at none where it is empty. */
  onSeat(student: string, table: string): void;
}

/** Who sits at which table: names are dragged to another, or its table is chosen beside them. */
export function SeatPlan({ people, tables, onSeat }: SeatPlanProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_DISTANCE } }));
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) onSeat(String(active.id), String(over.id).slice(1));
  };
  const seated = new Set(tables.flatMap(({ students }) => students));
  const at = (students: readonly string[]) => people.filter(({ id }) => students.includes(id));
  const without = people.filter(({ id }) => !seated.has(id));
  const row = (person: Person, table: string) => (
    <SeatedName key={person.id} person={person} table={table} tables={tables} onSeat={onSeat} />
  );
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <p className="mb-2 text-ink-soft">{t('roster.tablesByDragging')}</p>
      {tables.map(({ id, students }) => (
        <Seats key={id} id={id} name={t('roster.table', { number: id })}>
          {at(students).map((person) => row(person, id))}
        </Seats>
      ))}
      {without.length > 0 && (
        <Seats id="" name={t('roster.noTables')}>
          {without.map((person) => row(person, ''))}
        </Seats>
      )}
    </DndContext>
  );
}

function Seats({ id, name, children }: { id: string; name: string; children: ReactNode }) {
  // An empty id would be none.
  const { setNodeRef, isOver } = useDroppable({ id: `#${id}` });
  return (
    <section
      ref={setNodeRef}
      aria-label={name}
      className={classes('mb-2 rounded-xl p-2', isOver ? 'bg-board text-paper' : 'bg-paper-dim')}
    >
      <h3 className="px-1 font-bold">{name}</h3>
      <ul className="min-h-6">{children}</ul>
    </section>
  );
}

interface SeatedNameProps extends Pick<SeatPlanProps, 'tables' | 'onSeat'> {
  person: Person;
  table: string;
}

function SeatedName({ person, table, tables, onSeat }: SeatedNameProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: person.id });
  return (
    <li className="flex min-h-11 items-center gap-3">
      <span
        ref={setNodeRef}
        {...listeners}
        className={classes(
          'flex min-w-0 grow cursor-grab touch-none items-center gap-3 rounded-xl px-1',
          isDragging && 'relative z-10 bg-paper text-ink shadow-xl',
        )}
        style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      >
        <NameTag {...person} />
        <span className="truncate">{person.name}</span>
      </span>
      <select
        aria-label={t('roster.tableOf', { name: person.name })}
        value={table}
        onChange={(event) => onSeat(person.id, event.target.value)}
        className="min-h-11 rounded-xl border-2 border-paper-line bg-white px-2 text-ink"
      >
        <option value="">{t('roster.noTable')}</option>
        {tables.map(({ id }) => (
          <option key={id} value={id}>
            {t('roster.table', { number: id })}
          </option>
        ))}
      </select>
    </li>
  );
}
