import { AlarmClock } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { TimeLapse } from './timeLapse';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';

const SECONDS = [5, 15, 60, 300];

/** Takes a picture onto a page of its own again and again, such as of something that grows or melts. */
export function TimeLapseButton({ desk }: { desk: PageDesk }) {
  const [running, setRunning] = useState<TimeLapse>();
  useEffect(() => () => running?.stop(), [running]);
  if (running) {
    return (
      <IconButton
        label={t('handout.stopTakingPictures')}
        active
        icon={<AlarmClock aria-hidden size={20} />}
        onClick={() => setRunning(undefined)}
      />
    );
  }
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t('handout.aPictureAgainAndAgain')} icon={<AlarmClock aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <MenuContent>
        {SECONDS.map((seconds) => (
          <DropdownMenu.Item
            key={seconds}
            className={MENU_ITEM}
            onSelect={() => setRunning(new TimeLapse(desk, seconds))}
          >
            {seconds < 60
              ? t('handout.everySeconds', { count: seconds })
              : t('handout.everyMinutes', { count: seconds / 60 })}
          </DropdownMenu.Item>
        ))}
      </MenuContent>
    </DropdownMenu.Root>
  );
}
