import { t } from '../words';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import type { KeyPointer } from './keyPointer';

/** Where the pointer is that the arrow keys move. */
export default function KeyPointerCross({ pointer }: { pointer: KeyPointer }) {
  const state = useStore(pointer.state);
  if (!state) return null;
  return (
    <>
      <span
        aria-hidden
        data-testid="key-pointer"
        className={classes(
          'absolute size-9 -translate-1/2 rounded-full border-3 shadow-[0_0_0_2px_white]',
          'before:absolute before:top-1/2 before:-left-2 before:h-0.5 before:w-[calc(100%+1rem)] before:-translate-y-1/2 before:bg-ink',
          'after:absolute after:-top-2 after:left-1/2 after:h-[calc(100%+1rem)] after:w-0.5 after:-translate-x-1/2 after:bg-ink',
          state.down ? 'border-alarm bg-alarm/20' : 'border-ink',
        )}
        style={{ left: state.x, top: state.y }}
      />
      <p
        role="status"
        className="absolute top-2 left-1/2 -translate-x-1/2 rounded-xl bg-ink px-3 py-1 text-paper"
      >
        {t(state.down ? 'stage.arrowsMoveSpaceLifts' : 'stage.arrowsMoveSpacePutsDown')}
      </p>
    </>
  );
}
