import type { Ask } from '@doodla/core';
import { useStore } from '../store/useStore';
import { nodToAsk } from '../api/lessons';
import { Button } from '../ui/Button';
import type { Room } from '../room/room';
import { t } from '../words';

const WHY = {
  'same-name': 'classroom.somebodySaysTheyAre',
  'not-listed': 'roster.isNotOnTheList',
  new: 'roster.wantsToComeIn',
} as const satisfies Record<Ask['why'], string>;

/** Students who wait for the teacher's nod. */
export function AsksNotice({ room }: { room: Room }) {
  const asks = useStore(room.classroom!.state)?.asks ?? [];
  const sitting = room.sitting!;
  const nod = (ask: string, grant: boolean) =>
    void nodToAsk(sitting, ask, grant).catch((error: Error) => room.tellProblem(error.message));
  if (asks.length === 0) return null;
  const fresh = asks.filter(({ why }) => why !== 'same-name');
  return (
    <div
      role="status"
      aria-label={t('classroom.wantsToComeIn')}
      className="absolute top-16 left-1/2 z-30 max-h-80 w-120 max-w-[calc(100vw-1rem)] -translate-x-1/2 overflow-auto rounded-2xl bg-paper px-4 py-2 text-ink shadow-xl forced-colors:border-2"
    >
      {fresh.length > 1 && (
        <Button look="main" className="my-1 w-full" onClick={() => fresh.forEach(({ id }) => nod(id, true))}>
          {t('roster.letAllIn', { count: fresh.length })}
        </Button>
      )}
      <ul>
        {asks.map(({ id, name, why }) => (
          <li key={id} className="flex flex-wrap items-center gap-3 py-1">
            <p className="grow basis-60 font-bold">{t(WHY[why], { name })}</p>
            <Button onClick={() => nod(id, true)}>{t('classroom.letIn')}</Button>
            <Button onClick={() => nod(id, false)}>{t('classroom.no')}</Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
