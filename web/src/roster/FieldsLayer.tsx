import { fieldsOf } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { t } from '../words';

interface FieldsLayerProps {
  desk: PageDesk;
  stage: Stage;
}

/** The fields that a page is cut into, each with whose it is. */
export default function FieldsLayer({ desk, stage }: FieldsLayerProps) {
  const page = useStore(desk.pageId);
  useStore(desk.room.classroom!.state);
  useStore(desk.room.spaces.opened);
  const { scale, x, y } = useStore(stage.view);
  const fit = useStore(stage.fit);
  const students = page === undefined ? undefined : desk.room.spaces.fieldsOn(page);
  if (!students || !desk.page) return null;
  const me = desk.target.actor?.id;
  const fields = fieldsOf(desk.extentOf(desk.page), students.length);
  return (
    <>
      {fields.map((field, i) => {
        const student = students[i]!;
        const person = desk.room.personOf(student);
        const place = {
          left: x + field.x * scale,
          top: y + field.y * scale,
          width: field.width * scale,
          height: field.height * scale,
        };
        return (
          <div
            key={student}
            className="absolute outline-2 -outline-offset-1 outline-dashed"
            style={{ ...place, outlineColor: person?.colour ?? 'var(--color-board)' }}
          >
            <span className="absolute top-1 left-1 max-w-full truncate rounded-full bg-paper/90 px-2 text-xs font-bold text-ink">
              {student === me
                ? t('roster.yourField')
                : t('roster.fieldOf', { name: desk.room.nameOf(student) })}
            </span>
          </div>
        );
      })}
      {me !== undefined && students.includes(me) && fit !== 'region' && (
        <button
          type="button"
          onClick={() => stage.setFit('region')}
          className="pointer-events-auto absolute bottom-3 left-1/2 z-20 min-h-11 -translate-x-1/2 rounded-xl bg-board px-4 font-bold text-paper shadow-xl"
        >
          {t('roster.toYourField')}
        </button>
      )}
    </>
  );
}
