import type { Mark } from '@doodla/core';
import { seenBounds } from '@doodla/core/answers';
import type { PictureCache } from '../pictures/pictureCache';
import { classes } from '../ui/classes';
import { t } from '../words';
import { sayMark } from '../words/marks';
import { ThingPicture } from './ThingPicture';

/** Sides of a picture, CSS pixels. */
const PICTURE = { width: 96, height: 56 };
/** More cannot be told apart by looking. */
const MOST_SHOWN = 120;

interface MarkChoiceProps {
  label: string;
  /** What can be chosen from. */
  marks: readonly Mark[];
  chosen: readonly string[];
  /** Whether only one can be chosen. */
  single?: boolean;
  pictures: PictureCache;
  onChange(chosen: string[]): void;
}

/** Some of the marks of a page, chosen by their pictures. */
export function MarkChoice({ label, marks, chosen, single = false, pictures, onChange }: MarkChoiceProps) {
  const toggle = (id: string) => {
    if (chosen.includes(id)) return onChange(chosen.filter((one) => one !== id));
    onChange(single ? [id] : [...chosen, id]);
  };
  return (
    <fieldset className="mb-3">
      <legend className="mb-1 font-bold">{label}</legend>
      {marks.length === 0 && <p className="text-ink-soft">{t('answers.nothingElse')}</p>}
      <div className="flex max-h-52 flex-wrap gap-2 overflow-auto p-1">
        {marks.slice(-MOST_SHOWN).map((mark) => {
          const isChosen = chosen.includes(mark.id);
          const rect = seenBounds(mark);
          const scale = Math.min(
            1,
            PICTURE.width / Math.max(1, rect.width),
            PICTURE.height / Math.max(1, rect.height),
          );
          return (
            <button
              key={mark.id}
              type="button"
              aria-pressed={isChosen}
              aria-label={sayMark(mark)}
              title={sayMark(mark)}
              onClick={() => toggle(mark.id)}
              className={classes(
                'grid place-items-center rounded-xl border-2 bg-white p-1',
                isChosen ? 'border-board outline-3 outline-chalk' : 'border-paper-line hover:border-board',
              )}
              style={{ width: PICTURE.width + 12, height: PICTURE.height + 12 }}
            >
              <span
                className="relative block"
                style={{ width: rect.width * scale, height: rect.height * scale }}
              >
                <ThingPicture marks={[mark]} rect={rect} scale={scale} pictures={pictures} />
              </span>
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}
