import type { Room } from '../room/room';
import { Switch } from '../ui/Switch';
import { t } from '../words';
import type { Wanted } from './useReplay';

interface ReplayChoicesProps {
  room: Room;
  wanted: Wanted;
  /** Everybody who has written. */
  writers: readonly string[];
  pages: readonly { id: string; name: string }[];
  onChange(set: Partial<Wanted>): void;
}

const SELECT =
  'min-h-11 max-w-48 compact:min-w-0 compact:flex-[1_1_6rem] rounded-xl border-2 border-board-line bg-board-light px-2 text-paper';

/** Which page or all of them, whose marks, and whether pauses are shortened. */
export function ReplayChoices({ room, wanted, writers, pages, onChange }: ReplayChoicesProps) {
  return (
    <>
      <select
        aria-label={t('replay.what')}
        value={wanted.page ?? ''}
        onChange={({ target }) => onChange({ page: valueOf(target.value) })}
        className={SELECT}
      >
        {room.sitting !== undefined && <option value="">{t('replay.wholeClass')}</option>}
        {pages.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <WriterChoice room={room} wanted={wanted} writers={writers} onChange={onChange} />
      <div className="w-72 max-w-full compact:flex-[1_0_60%]">
        <Switch
          label={t('replay.truePauses')}
          checked={wanted.pauses}
          onChange={(pauses) => onChange({ pauses })}
        />
      </div>
    </>
  );
}

/** Whose marks are played. */
export function WriterChoice({ room, wanted, writers, onChange }: Omit<ReplayChoicesProps, 'pages'>) {
  return (
    <select
      aria-label={t('replay.whose')}
      value={wanted.author ?? ''}
      onChange={({ target }) => onChange({ author: valueOf(target.value) })}
      className={SELECT}
    >
      <option value="">{t('replay.everybodys')}</option>
      {writers.map((id) => (
        <option key={id} value={id}>
          {room.nameOf(id)}
        </option>
      ))}
    </select>
  );
}

const valueOf = (value: string) => (value === '' ? undefined : value);
