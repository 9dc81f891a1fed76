import type { TextStyle } from '@doodla/core';
import { AArrowDown, AArrowUp, Bold, Italic, Palette, Underline } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { EditorState } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { ColourChoice } from '../ui/ColourChoice';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { colourAt, hasLook, resizeLetters, setLook, toggleLook } from './letterLook';
import { run } from './textBox';
import { t } from '../words';

interface LetterBarProps {
  view: EditorView;
  /** What is typed and chosen now. */
  letters: EditorState;
  style: TextStyle;
  desk: PageDesk;
  /** Where the text lies in the window, CSS pixels. */
  place: { left: number; top: number; bottom: number };
  /** What the bars at the sides take of the window, CSS pixels. */
  room: { left: number; right: number };
}

const BAR_HEIGHT = 52;
const GAP = 12;

/** What can be done with some letters of the text that is being typed: those chosen, or the next ones. */
export function LetterBar({ view, letters, style, desk, place, room }: LetterBarProps) {
  const above = place.top - BAR_HEIGHT - GAP;
  const top = above > 4 ? above : place.bottom + GAP;
  const flag = (key: 'bold' | 'italic' | 'underline', label: string, shortcut: string, icon: ReactNode) => (
    <IconButton
      label={label}
      shortcut={shortcut}
      icon={icon}
      active={hasLook(letters, key, style)}
      onClick={() =>
        run(
          view,
          toggleLook(key, () => style),
        )
      }
    />
  );
  const resize = (steps: number) =>
    run(
      view,
      resizeLetters(steps, () => style),
    );
  const colour = colourAt(letters, style);
  return (
    <div
      className="pointer-events-none absolute z-20 flex"
      style={{ top: `clamp(4px, ${top}px, calc(100% - 60px))`, left: room.left, right: room.right }}
    >
      {/* Gives way where the bar would not fit beside it. */}
      <div className="min-w-0 shrink" style={{ flexBasis: Math.max(0, place.left - room.left) }} />
      <div
        role="toolbar"
        aria-label={t('typing.chosenLetters')}
        // The letters stay chosen, and the keys of a phone stay open.
        onPointerDown={(event) => {
          event.stopPropagation();
          event.preventDefault();
        }}
        onMouseDown={(event) => event.preventDefault()}
        className="pointer-events-auto flex shrink-0 items-center rounded-2xl bg-board forced-colors:border-2 p-0.5 text-paper shadow-xl"
      >
        {flag('bold', t('common.bold'), 'Ctrl+B', <Bold aria-hidden size={20} />)}
        {flag('italic', t('common.italic'), 'Ctrl+I', <Italic aria-hidden size={20} />)}
        {flag('underline', t('common.underline'), 'Ctrl+U', <Underline aria-hidden size={20} />)}
        <IconButton
          label={t('typing.largerLetters')}
          icon={<AArrowUp aria-hidden size={22} />}
          onClick={() => resize(1)}
        />
        <IconButton
          label={t('typing.smallerLetters')}
          icon={<AArrowDown aria-hidden size={22} />}
          onClick={() => resize(-1)}
        />
        {desk.penCase.fixedColour === undefined && (
          <Popover.Root>
            <Popover.Trigger asChild>
              <IconButton
                label={t('typing.colourOfTheseLetters')}
                icon={<Palette aria-hidden size={20} />}
                className="border-b-4"
                style={{ borderColor: colour }}
              />
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                aria-label={t('typing.colourOfTheseLetters')}
                sideOffset={8}
                collisionPadding={8}
                className="z-40 max-h-[80dvh] w-66 overflow-auto rounded-2xl bg-board forced-colors:border-2 p-3 text-paper shadow-xl"
                onCloseAutoFocus={(event) => {
                  event.preventDefault();
                  view.focus();
                }}
              >
                <ColourChoice colour={colour} onChange={(value) => run(view, setLook('colour', value))} />
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        )}
      </div>
    </div>
  );
}
