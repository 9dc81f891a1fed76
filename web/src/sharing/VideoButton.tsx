import { Disc, Square } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Microphone } from '../media/microphone';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';
import { CameraVideo } from './cameraVideo';

/** Records the picture of a camera, with or without what is said; what was recorded becomes a page. */
export function VideoButton({ desk }: { desk: PageDesk }) {
  const [running, setRunning] = useState<CameraVideo>();
  // Also where the camera is not shown any more.
  useEffect(() => () => void running?.stop(), [running]);
  if (running) return <Running video={running} />;
  const begin = async (isHeard: boolean) => {
    let microphone: Microphone | undefined;
    try {
      microphone = isHeard ? await Microphone.open() : undefined;
      setRunning(await CameraVideo.begin(desk, microphone, () => setRunning(undefined)));
    } catch (error) {
      microphone?.close();
      desk.tellProblem((error as Error).message);
    }
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t('sharing.recordTheCamera')} icon={<Disc aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <MenuContent>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void begin(true)}>
          {t('sharing.videoWithSound')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void begin(false)}>
          {t('sharing.videoWithoutSound')}
        </DropdownMenu.Item>
      </MenuContent>
    </DropdownMenu.Root>
  );
}

function Running({ video }: { video: CameraVideo }) {
  const seconds = useStore(video.seconds);
  const two = (value: number) => String(value).padStart(2, '0');
  return (
    <>
      <IconButton
        label={t('sharing.stopTheVideo')}
        active
        icon={<Square aria-hidden size={20} />}
        onClick={() => void video.stop()}
      />
      <span role="timer" className="px-1 text-sm tabular-nums">
        {t('sharing.videoTime', {
          time: `${Math.floor(seconds / 60)}:${two(seconds % 60)}`,
          longest: video.longest / 60,
        })}
      </span>
    </>
  );
}
