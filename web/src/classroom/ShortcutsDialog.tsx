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
import { penTags, switchPenTags } from '../roster/penTags';
import { LanguageChoice } from '../ui/LanguageChoice';
import { t } from '../words';

/** All keys, each to be changed by pressing another. */
export default function ShortcutsDialog({ room, onClose }: { room: Room; onClose(): void }) {
  const { shortcuts } = room;
  useStore(shortcuts);
  const tags = useStore(penTags);
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
      title={t('classroom.keysAndLetters')}
      description={t('classroom.chooseOneThenPressThe')}
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
              className="flex min-h-11 w-full items-center justify-between gap-3 rounded-xl px-3 text-start hover:bg-paper-dim aria-pressed:bg-chalk"
            >
              <span>{ACTIONS[action].name}</span>
              <kbd className="rounded-lg border-2 border-paper-line bg-white px-2 font-sans">
                {changing === action ? t('classroom.pressAKey') : shortcuts.setKeyOf(action)}
              </kbd>
            </button>
          </li>
        ))}
      </ul>
      <Tick checked={!shortcuts.singlesOff} onChange={(on) => shortcuts.switchSingles(on)}>
        {t('classroom.keysOfASingleLetter')}
      </Tick>
      <p className="mb-4 text-ink-soft">
        {t('classroom.arrowsTurnPagesOrNudge')} {room.isTeacher && t('classroom.stopKey')}
      </p>
      <div className="mb-4 flex items-center gap-3">
        <span className="font-bold">{t('common.sizeOfButtons')}</span>
        <TargetSizeChoice />
      </div>
      <div className="mb-4 flex items-center gap-3">
        <span className="font-bold">{t('common.sizeOfLetters')}</span>
        <TypeSizeChoice />
      </div>
      {room.classroom && (
        <Tick checked={tags} onChange={switchPenTags}>
          {t('classroom.namesRideBesidePens')}
        </Tick>
      )}
      <LanguageChoice />
      <Button onClick={() => shortcuts.reset()}>{t('classroom.backToTheFirstKeys')}</Button>
    </Modal>
  );
}
