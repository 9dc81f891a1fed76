import { useStore } from '../store/useStore';
import { classes } from './classes';
import type { TypeSize } from './typeSize';
import { targetSize, TYPE_SIZES, typeSize } from './typeSize';
import { t } from '../words';

const NAMES: Record<TypeSize, string> = {
  usual: t('ui.usualLetters'),
  large: t('ui.largeLetters'),
  largest: t('ui.largestLetters'),
};

/** Whether buttons are for a desk or for a display. */
export function TargetSizeChoice() {
  const size = useStore(targetSize);
  return (
    <div role="radiogroup" aria-label={t('common.sizeOfButtons')} className="flex items-center gap-1">
      {(['desk', 'display'] as const).map((value) => (
        <button
          key={value}
          type="button"
          role="radio"
          aria-checked={value === size}
          onClick={() => targetSize.set(value)}
          className={classes(
            'min-h-11 rounded-xl px-4 font-bold',
            value === size ? 'bg-chalk text-board' : 'hover:bg-paper-dim',
          )}
        >
          {value === 'desk' ? t('ui.desk') : t('ui.display')}
        </button>
      ))}
    </div>
  );
}

/** How large letters are, on paper or on the board. */
export function TypeSizeChoice({ onBoard = false }: { onBoard?: boolean }) {
  const size = useStore(typeSize);
  return (
    <div role="radiogroup" aria-label={t('common.sizeOfLetters')} className="flex items-center gap-1">
      {(Object.keys(TYPE_SIZES) as TypeSize[]).map((value) => (
        <button
          key={value}
          type="button"
          role="radio"
          aria-checked={value === size}
          aria-label={NAMES[value]}
          title={NAMES[value]}
          onClick={() => typeSize.set(value)}
          className={classes(
            'grid size-11 place-items-center rounded-xl font-bold',
            value === size ? 'bg-chalk text-board' : onBoard ? 'text-paper' : 'hover:bg-paper-dim',
          )}
        >
          <span style={{ fontSize: `${TYPE_SIZES[value]}em` }}>A</span>
        </button>
      ))}
    </div>
  );
}
