import type { ClassState } from '@doodla/core';
import { Crosshair, ScreenShare, UserMinus, Users } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useStore } from '../store/useStore';
import { clearClass, setDoor, takeOutStudent } from '../api/lessons';
import { Button } from '../ui/Button';
import { Switch } from '../ui/Switch';
import type { Room } from '../room/room';
import { t } from '../words';

interface PeopleMenuProps {
  room: Room;
  state: ClassState | undefined;
  isOpen: boolean;
}

/** Who is in the class, and what each may do. */
export function PeopleMenu({ room, state, isOpen }: PeopleMenuProps) {
  const { presenters = [], locked = false, people = [] } = state ?? {};
  const ended = !isOpen;
  const sitting = room.sitting!;
  const tell = (done: Promise<unknown>) => void done.catch((error: Error) => room.tellProblem(error.message));
  const { pointers, roam } = useStore(room.classroom!.scene);
  const here = people.filter((person) => person.here).length;
  const count = ended ? people.length : here;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button
          look="onBoard"
          icon={<Users aria-hidden size={18} />}
          aria-label={t('classroom.students2', { count })}
        >
          <span className="hidden compact:inline">{t('classroom.students')}</span>
          {count}
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('classroom.students')}
          align="end"
          sideOffset={8}
          className="z-40 max-h-[min(70dvh,var(--radix-popover-content-available-height))] w-80 max-w-[calc(100vw-1rem)] overflow-auto rounded-2xl border-2 border-board-line bg-paper p-3 shadow-xl"
        >
          {people.length === 0 && <p>{t('classroom.nobodyHasJoinedYet')}</p>}
          {!ended && (
            <div className="mb-2">
              <Switch
                label={t('classroom.studentsMayTurnPagesBy')}
                checked={roam}
                onChange={(on) => room.classroom!.setScene({ roam: on })}
              />
              <Switch
                label={t('classroom.letNobodyElseIn')}
                checked={locked}
                onChange={(on) => tell(setDoor(sitting, on))}
              />
            </div>
          )}
          <ul>
            {people.map(({ id, name, colour, here: isHere }) => (
              <li key={id} className="flex min-h-9 items-center gap-3">
                <span className="size-4 shrink-0 rounded-full" style={{ background: colour }} />
                <span className="grow truncate">{name}</span>
                {!ended && !isHere && <span className="text-sm text-ink-soft">{t('classroom.away')}</span>}
                {!ended && (
                  <button
                    type="button"
                    aria-pressed={pointers.includes(id)}
                    aria-label={t('classroom.mayPoint2', { name })}
                    title={t('classroom.mayPoint')}
                    onClick={() => room.letPoint(id, !pointers.includes(id))}
                    className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim aria-pressed:bg-chalk"
                  >
                    <Crosshair aria-hidden size={18} />
                  </button>
                )}
                {!ended && (
                  <button
                    type="button"
                    aria-pressed={presenters.includes(id)}
                    aria-label={t('classroom.mayShowTheirScreen2', { name })}
                    title={t('classroom.mayShowTheirScreen')}
                    onClick={() => room.sharing.allow(id, !presenters.includes(id))}
                    className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim aria-pressed:bg-chalk"
                  >
                    <ScreenShare aria-hidden size={18} />
                  </button>
                )}
                {!ended && (
                  <button
                    type="button"
                    aria-label={t('classroom.takeOutOfTheClass', { name })}
                    title={t('classroom.takeOutWhatTheyWrote')}
                    onClick={() => tell(takeOutStudent(sitting, id))}
                    className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim"
                  >
                    <UserMinus aria-hidden size={18} />
                  </button>
                )}
              </li>
            ))}
          </ul>
          {!ended && here < people.length && (
            <Button onClick={() => tell(clearClass(sitting))}>{t('classroom.takeOutAllWhoAre')}</Button>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
