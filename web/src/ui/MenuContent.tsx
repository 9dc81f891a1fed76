import { DropdownMenu } from 'radix-ui';
import type { ComponentProps } from 'react';

/** How an entry of a menu looks. */
export const MENU_ITEM =
  'flex min-h-11 cursor-pointer items-center gap-3 rounded-xl px-3 text-base outline-none data-disabled:opacity-40 data-highlighted:bg-paper-dim';

/** The entries of a menu; never outside the window, and scrolled where there is no room for all. */
export function MenuContent(props: Omit<ComponentProps<typeof DropdownMenu.Content>, 'className'>) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        sideOffset={8}
        collisionPadding={8}
        {...props}
        className="z-40 max-h-(--radix-dropdown-menu-content-available-height) max-w-[calc(100vw-1rem)] overflow-auto rounded-2xl border-2 border-board-line bg-paper p-2 shadow-xl"
      />
    </DropdownMenu.Portal>
  );
}
