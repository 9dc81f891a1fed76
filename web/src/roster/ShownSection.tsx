import type { Room } from '../room/room';
import type { ShownOf } from '../room/shownMarks';
import { useStore } from '../store/useStore';
import { t } from '../words';

/** Whose marks are shown on this screen. */
export function ShownSection({ room }: { room: Room }) {
  const shown = useStore(room.shown.of);
  const people = useStore(room.classroom!.state)?.people ?? [];
  const me = room.target.actor?.id;
  const choices: { value: string; name: string; of: ShownOf }[] = [
    { value: 'everybody', name: t('roster.everybodysMarks'), of: 'everybody' },
    ...(me ? [{ value: me, name: t('roster.onlyMine'), of: { author: me } }] : []),
    { value: 'no-students', name: t('roster.allButStudents'), of: 'no-students' },
    ...people
      .filter(({ id, name }) => id !== me && name)
      .map(({ id, name }) => ({ value: id, name: t('roster.onlyOf', { name }), of: { author: id } })),
  ];
  const value = typeof shown === 'string' ? shown : shown.author;
  return (
    <label className="flex flex-wrap items-center gap-2">
      <span className="font-bold">{t('roster.shownHere')}</span>
      <select
        value={value}
        onChange={(event) => {
          const chosen = choices.find((choice) => choice.value === event.target.value);
          if (chosen) room.shown.of.set(chosen.of);
        }}
        className="min-h-11 min-w-0 grow rounded-xl border-2 border-paper-line bg-white px-2"
      >
        {choices.map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.name}
          </option>
        ))}
      </select>
    </label>
  );
}
