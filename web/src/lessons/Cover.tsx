import { useState } from 'react';
import { classes } from '../ui/classes';

/** A busy server may have had no time to draw it. */
const ATTEMPTS = 2;
const RETRY_MS = 5000;

/** A lesson's first page as a picture; where there is none, an empty place. */
export function Cover({ src, className }: { src: string; className: string }) {
  const [attempt, setAttempt] = useState(1);
  const [there, setThere] = useState(true);
  const fail = () => {
    setThere(false);
    if (attempt < ATTEMPTS)
      setTimeout(() => {
        setAttempt(attempt + 1);
        setThere(true);
      }, RETRY_MS);
  };
  return (
    <div className={classes('flex items-center justify-center overflow-hidden bg-paper-dim', className)}>
      {there && (
        <img
          src={attempt === 1 ? src : `${src}?attempt=${attempt}`}
          alt=""
          loading="lazy"
          onError={fail}
          className="max-h-full max-w-full object-contain p-2"
        />
      )}
    </div>
  );
}
