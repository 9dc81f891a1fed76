import type { ClassState, Person } from '@doodla/core';
import type { Room } from '../room/room';
import { Button } from '../ui/Button';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';

/** Whose hands are up, the first first. */
export function HandsSection({ room, state: { hands, people } }: { room: Room; state: ClassState }) {
  if (hands.length === 0) return null;
  const up = hands
    .map((id) => people.find((person) => person.id === id))
    .filter((one): one is Person => one !== undefined);
  return (
    <section aria-label={t('asking.handsUp')} className="mb-1 rounded-xl bg-paper-dim px-3 py-2">
      <ol>
        {up.map((person) => (
          <li key={person.id} className="flex min-h-11 items-center gap-2">
            <NameTag {...person} />
            <span className="min-w-0 grow truncate font-bold">{person.name}</span>
            <Button className="!px-2" onClick={() => void room.asking!.hand(false, person.id)}>
              {t('asking.handDown')}
            </Button>
          </li>
        ))}
      </ol>
      {up.length > 1 && (
        <Button className="mt-1 w-full" onClick={() => void room.asking!.hand(false)}>
          {t('asking.allHandsDown')}
        </Button>
      )}
    </section>
  );
}
