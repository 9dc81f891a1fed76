import { Disc, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { CameraVideo } from './cameraVideo';

/** Records the picture of a camera; what was recorded becomes a page. */
export function VideoButton({ desk }: { desk: PageDesk }) {
  const [running, setRunning] = useState<CameraVideo>();
  // Also where the camera is not shown any more.
  useEffect(() => () => void running?.stop(), [running]);
  if (running) return <Running video={running} />;
  const begin = () =>
    CameraVideo.begin(desk, () => setRunning(undefined)).then(setRunning, (error: Error) =>
      desk.tellProblem(error.message),
    );
  return (
    <IconButton
      label={t('sharing.recordTheCamera')}
      icon={<Disc aria-hidden size={20} />}
      onClick={() => void begin()}
    />
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
