import { Eye, EyeOff } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import type { PlayedPictures } from './playedPictures';

/** The small picture of whoever explained, in a corner; it can be hidden where it is in the way. */
export function FacePicture({ face }: { face: PlayedPictures }) {
  const place = useRef<HTMLDivElement>(null);
  const [film, setFilm] = useState(face.now);
  const [isHidden, setHidden] = useState(false);
  useEffect(() => face.changed.subscribe(() => setFilm(face.now)), [face]);
  useEffect(() => {
    if (film) place.current?.replaceChildren(film);
  }, [film]);
  if (!film) return null;
  return (
    <div className="absolute end-2 bottom-2">
      <div
        ref={place}
        role="img"
        aria-label={t('explain.teachersPicture')}
        className={classes(
          'aspect-4/3 w-44 overflow-hidden rounded-xl shadow-xl compact:w-24 *:size-full *:object-cover',
          isHidden && 'hidden',
        )}
      />
      <div className="absolute end-0 bottom-0 rounded-xl bg-board/80 compact:bottom-full">
        <IconButton
          label={t(isHidden ? 'explain.showPicture' : 'explain.hidePicture')}
          icon={isHidden ? <Eye aria-hidden size={18} /> : <EyeOff aria-hidden size={18} />}
          tooltipSide="none"
          onClick={() => setHidden(!isHidden)}
        />
      </div>
    </div>
  );
}
