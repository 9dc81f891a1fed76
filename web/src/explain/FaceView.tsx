import { useEffect, useRef } from 'react';
import { classes } from '../ui/classes';
import { t } from '../words';
import type { FaceCamera } from './faceCamera';

/** What the camera sees of whoever explains. */
export function FaceView({ face, className }: { face: FaceCamera; className: string }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = face.stream;
  }, [face]);
  return (
    <video
      ref={video}
      autoPlay
      muted
      playsInline
      aria-label={t('explain.yourPicture')}
      className={classes('aspect-4/3 rounded-xl object-cover', className)}
    />
  );
}
