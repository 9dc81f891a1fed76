import type { MarkOf } from '@doodla/core';
import { heapsOf } from '@doodla/core';
import { FolderInput, FolderMinus, Pencil, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { IdeaActions } from '../room/ideaActions';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';
import { placeOf } from './boxOf';

interface IdeaMenuProps {
  note: MarkOf<'note'>;
  scale: number;
  actions: IdeaActions;
  /** Whether its words may be changed, and it may be removed. */
  mayChange: boolean;
  onWrite(): void;
  onClose(): void;
}

/** What can be done with a note without dragging it. */
export function IdeaMenu({ note, scale, actions, mayChange, onWrite, onClose }: IdeaMenuProps) {
  const { mayGroup } = actions;
  const groups = heapsOf(actions.marks).filter(({ id, notes }) => id !== null && !notes.includes(note));
  const isIn = heapsOf(actions.marks).some(({ id, notes }) => id !== null && notes.includes(note));
  const loose = heapsOf(actions.marks).find(({ id }) => id === null);
  const nextTo = loose?.notes.find(({ id }) => id !== note.id);
  return (
    <DropdownMenu.Root open modal={false} onOpenChange={(isOpen) => !isOpen && onClose()}>
      <DropdownMenu.Trigger asChild>
        <span aria-hidden className="pointer-events-none absolute" style={placeOf(note, scale)} />
      </DropdownMenu.Trigger>
      <MenuContent side="right" align="start">
        <p className="max-w-72 px-3 py-2 font-bold break-words">{note.text || t('ideas.withoutWords')}</p>
        {mayChange && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={onWrite}>
            <Pencil aria-hidden size={18} />
            {t('ideas.changeWords')}
          </DropdownMenu.Item>
        )}
        {mayGroup &&
          groups.map(({ id, title }) => (
            <DropdownMenu.Item key={id} className={MENU_ITEM} onSelect={() => actions.putInto(note, id!)}>
              <FolderInput aria-hidden size={18} />
              {t('ideas.putInto', { name: title?.text ?? t('ideas.group') })}
            </DropdownMenu.Item>
          ))}
        {mayGroup && !isIn && nextTo && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => actions.putWith(note, nextTo)}>
            <FolderInput aria-hidden size={18} />
            {t('ideas.putWith', { words: nextTo.text || t('ideas.withoutWords') })}
          </DropdownMenu.Item>
        )}
        {mayGroup && isIn && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => actions.takeOut(note)}>
            <FolderMinus aria-hidden size={18} />
            {t('ideas.takeOut')}
          </DropdownMenu.Item>
        )}
        {mayChange && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => actions.remove(note)}>
            <Trash2 aria-hidden size={18} />
            {t('ideas.remove')}
          </DropdownMenu.Item>
        )}
      </MenuContent>
    </DropdownMenu.Root>
  );
}
