import { turnAfter, turnOf } from '@doodla/core/answers';
import { SkipForward, Users, X } from 'lucide-react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';

/** Whose turn it is to answer; undefined where nobody has to wait. */
export function useTurn({ room }: PageDesk): string | undefined {
  const { turns } = useStore(room.classroom!.scene);
  return turns ? turnOf(turns) : undefined;
}

/** Says whose turn it is; the teacher begins turns here, goes on to the next, and ends them. */
export function TurnBar({ desk }: { desk: PageDesk }) {
  const classroom = desk.room.classroom!;
  const { turns } = useStore(classroom.scene);
  const state = useStore(classroom.state);
  const here = (state?.people ?? []).filter((person) => person.here);
  if (!turns) {
    if (!desk.isTeacher || here.length < 2) return null;
    const begin = () => classroom.setScene({ turns: { students: here.map(({ id }) => id), at: 0 } });
    return (
      <Button look="onBoard" icon={<Users aria-hidden size={18} />} onClick={begin}>
        {t('answers.takeTurns')}
      </Button>
    );
  }
  const id = turnOf(turns);
  const isOwn = id === desk.target.actor?.id;
  const name = state?.people.find((person) => person.id === id)?.name;
  return (
    <>
      <p role="status" className="flex min-h-11 items-center px-3 font-bold">
        {isOwn ? t('answers.yourTurn') : name ? t('answers.turnOf', { name }) : t('answers.anothersTurn')}
      </p>
      {desk.isTeacher && (
        <>
          <Button
            look="onBoard"
            icon={<SkipForward aria-hidden size={18} />}
            onClick={() =>
              classroom.setScene({ turns: turnAfter(turns, new Set(here.map((one) => one.id))) })
            }
          >
            {t('answers.nextTurn')}
          </Button>
          <Button
            look="onBoard"
            icon={<X aria-hidden size={18} />}
            onClick={() => classroom.setScene({ turns: null })}
          >
            {t('answers.endTurns')}
          </Button>
        </>
      )}
    </>
  );
}
