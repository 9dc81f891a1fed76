import type { Freedom, Rules } from '@doodla/core';
import { FREEDOMS } from '@doodla/core';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Switch } from '../ui/Switch';
import { classes } from '../ui/classes';
import { t } from '../words';

const FREEDOM_NAMES: Record<Freedom, 'roster.inkOnly' | 'roster.inkAndWords' | 'roster.everything'> = {
  ink: 'roster.inkOnly',
  words: 'roster.inkAndWords',
  everything: 'roster.everything',
};

const FLAGS = {
  pointing: 'roster.allMayPoint',
  seeMarks: 'roster.seeEachOthersMarks',
  seeNames: 'roster.seeEachOthersNames',
  handout: 'roster.takeThePagesWithThem',
} as const satisfies Partial<Record<keyof Rules, string>>;

/** What the students of a class may do beside writing at all. */
export function RulesSection({ room }: { room: Room }) {
  const classroom = room.classroom!;
  const rules = useStore(room.rules);
  const { roam } = useStore(classroom.scene);
  return (
    <div>
      <p id="freedom" className="mb-1 text-sm font-bold">
        {t('roster.studentsMayPut')}
      </p>
      <div role="radiogroup" aria-labelledby="freedom" className="mb-2 grid grid-cols-3 gap-1">
        {FREEDOMS.map((freedom) => (
          <button
            key={freedom}
            type="button"
            role="radio"
            aria-checked={rules.freedom === freedom}
            onClick={() => classroom.setRules({ freedom })}
            className={classes(
              'min-h-11 rounded-xl border-2 px-1 text-sm',
              rules.freedom === freedom
                ? 'border-board bg-board font-bold text-paper'
                : 'border-paper-line hover:bg-paper-dim',
            )}
          >
            {t(FREEDOM_NAMES[freedom])}
          </button>
        ))}
      </div>
      <Switch
        label={t('classroom.studentsMayTurnPagesBy')}
        checked={roam}
        onChange={(on) => classroom.setScene({ roam: on })}
      />
      {(Object.keys(FLAGS) as (keyof typeof FLAGS)[]).map((flag) => (
        <Switch
          key={flag}
          label={t(FLAGS[flag])}
          checked={rules[flag]}
          onChange={(on) => classroom.setRules({ [flag]: on })}
        />
      ))}
    </div>
  );
}
