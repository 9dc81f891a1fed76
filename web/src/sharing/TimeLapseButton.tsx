import { AlarmClock } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import type { LapseForm } from './timeLapse';
import { TimeLapse } from './timeLapse';
import { t } from '../words';

const SECONDS = [5, 15, 60, 300];
const FORM_NAMES = { pages: 'sharing.lapseOntoPages', video: 'sharing.lapseIntoVideo' } as const;

const FORMS: readonly LapseForm[] = ['pages', 'video'];

/** Takes a picture again and again, such as of something that grows or melts: onto pages, or into a video. */
export function TimeLapseButton({ desk }: { desk: PageDesk }) {
  const [running, setRunning] = useState<TimeLapse>();
  useEffect(() => () => void running?.stop(), [running]);
  if (running) {
    return (
      <IconButton
        label={t('handout.stopTakingPictures')}
        active
        icon={<AlarmClock aria-hidden size={20} />}
        onClick={() => void running.stop()}
      />
    );
  }
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t('handout.aPictureAgainAndAgain')} icon={<AlarmClock aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <MenuContent>
        {FORMS.map((form) => (
          <DropdownMenu.Group key={form} aria-label={t(FORM_NAMES[form])}>
            <DropdownMenu.Label className="px-3 pt-2 font-bold">{t(FORM_NAMES[form])}</DropdownMenu.Label>
            {SECONDS.map((seconds) => (
              <DropdownMenu.Item
                key={seconds}
                className={MENU_ITEM}
                onSelect={() => setRunning(new TimeLapse(desk, seconds, form, () => setRunning(undefined)))}
              >
                {seconds < 60
                  ? t('handout.everySeconds', { count: seconds })
                  : t('handout.everyMinutes', { count: seconds / 60 })}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Group>
        ))}
      </MenuContent>
    </DropdownMenu.Root>
  );
}
