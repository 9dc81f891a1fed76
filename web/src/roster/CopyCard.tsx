import type { Page, Space } from '@doodla/core';
import { memo } from 'react';
import type { Copy } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { NameTag } from '../ui/NameTag';
import { t } from '../words';
import { copyName } from './copyNames';
import type { Ground } from './Miniature';
import { Miniature } from './Miniature';

interface CopyCardProps {
  desk: PageDesk;
  page: Page;
  copy: Copy;
  ground: Ground | undefined;
  /** Whether it is one of those that are compared. */
  chosen: boolean;
  /** How far they have come, in words. */
  progress: string;
  onChoose(space: Space, chosen: boolean): void;
  onOpen(space: Space): void;
  onShow(space: Space, named: boolean): void;
}

/** A copy on the wall. Drawn anew only where it has changed: a whole class writes at once. */
export const CopyCard = memo(function CopyCard(props: CopyCardProps) {
  const { desk, page, copy, ground, chosen, progress, onChoose, onOpen, onShow } = props;
  const { space } = copy;
  const name = copyName(copy);
  return (
    <li className="flex flex-col gap-1 rounded-2xl bg-board-light p-2">
      <button
        type="button"
        aria-label={t('roster.openCopyOf', { name })}
        onClick={() => onOpen(space)}
        className="rounded-lg"
      >
        <Miniature desk={desk} page={page} copy={copy} ground={ground} />
      </button>
      <div className="flex items-center gap-2">
        {copy.table === undefined && copy.people[0] && <NameTag {...copy.people[0]} />}
        <span className="min-w-0 grow">
          <span className="block truncate font-bold">{name}</span>
          <span className="block text-sm">{progress}</span>
        </span>
        <input
          type="checkbox"
          aria-label={t('roster.chooseCopy', { name })}
          title={t('roster.chooseCopy', { name })}
          checked={chosen}
          onChange={(event) => onChoose(space, event.target.checked)}
          className="size-6 shrink-0"
        />
      </div>
      <div className="flex gap-1 text-sm">
        <Button look="onBoard" className="grow !px-1 !text-sm" onClick={() => onShow(space, true)}>
          {t('roster.showToAll')}
        </Button>
        <Button look="onBoard" className="grow !px-1 !text-sm" onClick={() => onShow(space, false)}>
          {t('roster.showWithoutName')}
        </Button>
      </div>
    </li>
  );
});
