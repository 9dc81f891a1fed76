import type { Freedom, Rules } from '@doodla/core';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { PaperChoice } from '../ui/PaperChoice';
import { Switch } from '../ui/Switch';
import { t } from '../words';

const FREEDOM_NAMES: Readonly<Record<Freedom, string>> = {
  ink: t('roster.inkOnly'),
  words: t('roster.inkAndWords'),
  everything: t('roster.everything'),
};

const FLAGS = {
  pointing: 'roster.allMayPoint',
  seeMarks: 'roster.seeEachOthersMarks',
  seeNames: 'roster.seeEachOthersNames',
  handout: 'roster.takeThePagesWithThem',
  replay: 'roster.playPagesAgain',
  instruments: 'roster.haveInstruments',
} as const satisfies Partial<Record<keyof Rules, string>>;

/** What the students of a class may do beside writing at all. */
export function RulesSection({ room }: { room: Room }) {
  const classroom = room.classroom!;
  const rules = useStore(room.rules);
  const { roam } = useStore(classroom.scene);
  return (
    <div>
      <p aria-hidden className="mb-1 text-sm font-bold">
        {t('roster.studentsMayPut')}
      </p>
      <PaperChoice
        label={t('roster.studentsMayPut')}
        value={rules.freedom}
        names={FREEDOM_NAMES}
        onChange={(freedom) => classroom.setRules({ freedom })}
      />
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
