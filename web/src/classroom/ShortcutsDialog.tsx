import { useState } from 'react';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import { Tick } from '../ui/Tick';
import { TargetSizeChoice, TypeSizeChoice } from '../ui/TypeSizeChoice';
import type { ActionId } from '../desk/shortcuts';
import { ACTION_IDS, ACTIONS, writtenKey } from '../desk/shortcuts';
import type { Room } from '../room/room';

/** All keys, each to be changed by pressing another. */
export default function ShortcutsDialog({ room, onClose }: { room: Room; onClose(): void }) {
  const { shortcuts } = room;
  useStore(shortcuts);
  const [changing, setChanging] = useState<ActionId>();
  const [problem, setProblem] = useState<string>();
  const take = (event: React.KeyboardEvent, action: ActionId) => {
    if (changing !== action || ['Shift', 'Control', 'Meta', 'Alt'].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key !== 'Escape') setProblem(shortcuts.change(action, writtenKey(event)));
    setChanging(undefined);
  };
  return (
    <Modal
      title="Keys and letters"
      description="Choose one, then press the key that it should have."
      open
      onOpenChange={onClose}
    >
      <Problem>{problem}</Problem>
      <ul className="mb-4 grid gap-1 sm:grid-cols-2">
        {ACTION_IDS.map((action) => (
          <li key={action}>
            <button
              type="button"
              aria-pressed={changing === action}
              onClick={() => setChanging(action)}
              onKeyDown={(event) => take(event, action)}
              onBlur={() => setChanging(undefined)}
              className="flex min-h-11 w-full items-center justify-between gap-3 rounded-xl px-3 text-left hover:bg-paper-dim aria-pressed:bg-chalk"
            >
              <span>{ACTIONS[action].name}</span>
              <kbd className="rounded-lg border-2 border-paper-line bg-white px-2 font-sans">
                {changing === action ? 'press …' : shortcuts.setKeyOf(action)}
              </kbd>
            </button>
          </li>
        ))}
      </ul>
      <Tick checked={!shortcuts.singlesOff} onChange={(on) => shortcuts.switchSingles(on)}>
        Keys of a single letter or sign do something
      </Tick>
      <p className="mb-4 text-ink-soft">
        Arrows turn pages or nudge what is selected. While drawing, Shift keeps angles and proportions, Alt
        draws from the middle. Holding Space moves the page.
      </p>
      <div className="mb-4 flex items-center gap-3">
        <span className="font-bold">Size of buttons</span>
        <TargetSizeChoice />
      </div>
      <div className="mb-4 flex items-center gap-3">
        <span className="font-bold">Size of letters</span>
        <TypeSizeChoice />
      </div>
      <Button onClick={() => shortcuts.reset()}>Back to the first keys</Button>
    </Modal>
  );
}
