import { SelectField } from '../ui/SelectField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import type { HandoutChoice } from './handoutOrder';
import type { HandoutStudent } from './handoutSets';

interface MarkPartsProps {
  choice: HandoutChoice;
  students: readonly HandoutStudent[];
  /** Whether marks of a class lie over prepared ones. */
  isClass: boolean;
  hasPatches: boolean;
  /** Whether there are pages that answer. */
  hasRules: boolean;
  change(set: Partial<HandoutChoice>): void;
}

/** Which marks are handed out, and what those who made them are called. */
export function MarkParts({ choice, students, isClass, hasPatches, hasRules, change }: MarkPartsProps) {
  const { whose } = choice;
  const value = typeof whose === 'object' ? `student:${whose.student}` : whose;
  const options = [
    { value: 'everybody', name: t('handout.everybodys') },
    { value: 'teacher', name: t('handout.onlyTeachers') },
    ...(choice.format === 'link' ? [] : [{ value: 'each', name: t('handout.eachStudents') }]),
    ...students.map(({ id, name }) => ({ value: `student:${id}`, name: t('handout.onlyOf', { name }) })),
  ];
  const choose = (chosen: string) =>
    change({
      whose: chosen.startsWith('student:')
        ? { student: chosen.slice('student:'.length) }
        : (chosen as 'everybody' | 'teacher' | 'each'),
    });
  const hasStudents = students.length > 0;
  if (!isClass && !hasPatches && !hasRules) return null;
  return (
    <div className="mb-3 *:mb-1">
      {hasStudents && (
        <SelectField label={t('handout.whoseMarks')} value={value} options={options} onChange={choose} />
      )}
      {isClass && (
        <Tick checked={choice.prepared} onChange={(prepared) => change({ prepared })}>
          {t('handout.withPrepared')}
        </Tick>
      )}
      {hasPatches && (
        <Tick checked={choice.covered} onChange={(covered) => change({ covered })}>
          {t('handout.covered')}
        </Tick>
      )}
      {hasRules && (
        <SelectField<NonNullable<HandoutChoice['answers']>>
          label={t('handout.answersOnPages')}
          value={choice.answers ?? 'given'}
          options={[
            { value: 'given', name: t(isClass ? 'handout.answersGiven' : 'handout.answersAsPrepared') },
            { value: 'key', name: t('handout.answersKey') },
            { value: 'none', name: t('handout.answersNone') },
          ]}
          onChange={(answers) => change({ answers })}
        />
      )}
      {hasStudents && (
        <Tick checked={choice.initials} onChange={(initials) => change({ initials })}>
          {t('handout.initials')}
        </Tick>
      )}
    </div>
  );
}
