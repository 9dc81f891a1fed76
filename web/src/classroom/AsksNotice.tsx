import { useStore } from '../store/useStore';
import { nodToAsk } from '../api/lessons';
import { Button } from '../ui/Button';
import type { Room } from '../room/room';
import { t } from '../words';

/** Students who say that they are somebody who is in the class, on another device. */
export function AsksNotice({ room }: { room: Room }) {
  const asks = useStore(room.classroom!.state)?.asks ?? [];
  const sitting = room.sitting!;
  const nod = (ask: string, grant: boolean) =>
    void nodToAsk(sitting, ask, grant).catch((error: Error) => room.tellProblem(error.message));
  if (asks.length === 0) return null;
  return (
    <ul
      role="status"
      aria-label={t('classroom.wantsToComeIn')}
      className="absolute top-16 left-1/2 z-30 max-h-60 w-120 max-w-[calc(100vw-1rem)] -translate-x-1/2 overflow-auto rounded-2xl border-2 border-board bg-paper px-4 py-2 text-ink shadow-xl"
    >
      {asks.map(({ id, name }) => (
        <li key={id} className="flex flex-wrap items-center gap-3 py-1">
          <p className="grow basis-60 font-bold">{t('classroom.somebodySaysTheyAre', { name })}</p>
          <Button onClick={() => nod(id, true)}>{t('classroom.letIn')}</Button>
          <Button onClick={() => nod(id, false)}>{t('classroom.no')}</Button>
        </li>
      ))}
    </ul>
  );
}
