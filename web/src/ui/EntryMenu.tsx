import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { useState } from 'react';
import type { Entry } from './entries';
import { OpenedEntry } from './entries';
import { MENU_ITEM, MenuContent } from './MenuContent';

interface EntryMenuProps<Props> {
  entries: readonly Entry<Props>[];
  /** What the entries work on. */
  props: Props;
  /** The button that opens it. */
  trigger: ReactNode;
  align?: 'start' | 'end';
}

/** A menu of entries, and what the chosen one opens. */
export function EntryMenu<Props extends object>({ entries, props, trigger, align }: EntryMenuProps<Props>) {
  const [opened, setOpened] = useState<Entry<Props>>();
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
        <MenuContent {...(align && { align })}>
          {entries
            .filter((entry) => entry.when?.(props) ?? true)
            .map((entry) => (
              <DropdownMenu.Item
                key={entry.id}
                disabled={!(entry.enabled?.(props) ?? true)}
                className={`${MENU_ITEM} ${entry.alarming ? 'text-alarm' : ''}`}
                onSelect={() => ('run' in entry ? entry.run(props) : setOpened(entry))}
              >
                {entry.icon} {entry.label}
              </DropdownMenu.Item>
            ))}
        </MenuContent>
      </DropdownMenu.Root>
      <OpenedEntry entry={opened} props={props} onClose={() => setOpened(undefined)} />
    </>
  );
}
