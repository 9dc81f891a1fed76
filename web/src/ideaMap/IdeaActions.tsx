import type { Mark } from '@doodla/core';
import { BRANCHES, ideasOf, opensByTap } from '@doodla/core/idea-map';
import {
  ArrowDown,
  ArrowUp,
  CornerDownRight,
  IndentDecrease,
  IndentIncrease,
  Move,
  Palette,
  Plus,
  Pointer,
  Trash2,
} from 'lucide-react';
import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { IconButton } from '../ui/IconButton';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';
import type { Doing, IdeaChange, Row } from './ideaRows';
import { doings } from './ideaRows';

const ACTIONS: readonly (readonly [Doing, string, ReactNode])[] = [
  ['child', t('ideaMap.child'), <CornerDownRight key="" aria-hidden size={20} />],
  ['sibling', t('ideaMap.sibling'), <Plus key="" aria-hidden size={20} />],
  ['inwards', t('ideaMap.inwards'), <IndentIncrease key="" aria-hidden size={20} />],
  ['outwards', t('ideaMap.outwards'), <IndentDecrease key="" aria-hidden size={20} />],
  ['up', t('ideaMap.up'), <ArrowUp key="" aria-hidden size={20} />],
  ['down', t('ideaMap.downwards'), <ArrowDown key="" aria-hidden size={20} />],
  ['remove', t('ideaMap.remove'), <Trash2 key="" aria-hidden size={20} />],
];

const COLOUR_NAMES = ['blue', 'orange', 'green', 'pink', 'yellow', 'grey'] as const;

interface IdeaActionsProps {
  rows: readonly Row[];
  at: number;
  mayTouch(mark: Mark): boolean;
  /** Whether it may be said what marks do in class. */
  mayRule: boolean;
  change(what: IdeaChange): void;
  /** Selects the idea in hand with all that hangs on it. */
  onBranch(): void;
}

/** What can be done to the idea in hand. */
export function IdeaActions({ rows, at, mayTouch, mayRule, change, onBranch }: IdeaActionsProps) {
  const can = doings(rows, at, mayTouch);
  const { idea } = rows[at]!;
  const { mark } = idea;
  const { id } = mark;
  const byTaps = opensByTap(idea);
  const mayOpen = idea.children.length > 0 && ideasOf(idea).every((each) => mayTouch(each.mark));
  return (
    <div role="toolbar" aria-label={t('ideaMap.doings')} className="flex flex-wrap">
      {ACTIONS.map(([doing, label, icon]) => {
        const what = can[doing];
        return (
          <IconButton
            key={doing}
            label={label}
            icon={icon}
            disabled={!what}
            onClick={() => what && change(what)}
          />
        );
      })}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton
            label={t('ideaMap.colour')}
            icon={<Palette aria-hidden size={20} />}
            disabled={!mayTouch(mark)}
          />
        </DropdownMenu.Trigger>
        <MenuContent>
          {BRANCHES.map((branch, i) => (
            <DropdownMenu.Item
              key={branch.ground}
              className={MENU_ITEM}
              onSelect={() => change((edit) => void edit.colour(id, branch))}
            >
              <span
                aria-hidden
                className="size-5 rounded-full border-4"
                style={{ background: branch.ground, borderColor: branch.line }}
              />
              {t(`ideaMap.${COLOUR_NAMES[i]!}`)}
            </DropdownMenu.Item>
          ))}
        </MenuContent>
      </DropdownMenu.Root>
      {mayRule && (
        <IconButton
          label={t('ideaMap.byTaps')}
          icon={<Pointer aria-hidden size={20} />}
          aria-pressed={byTaps}
          disabled={!mayOpen}
          onClick={() => change((edit) => void edit.openByTaps(id, !byTaps))}
        />
      )}
      <IconButton label={t('ideaMap.branch')} icon={<Move aria-hidden size={20} />} onClick={onBranch} />
    </div>
  );
}
