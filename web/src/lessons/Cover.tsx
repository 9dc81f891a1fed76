import { useState } from 'react';
import { classes } from '../ui/classes';

/** A lesson's first page as a picture; where there is none, an empty place. */
export function Cover({ src, className }: { src: string; className: string }) {
  const [there, setThere] = useState(true);
  return (
    <div className={classes('flex items-center justify-center overflow-hidden bg-paper-dim', className)}>
      {there && (
        <img
          src={src}
          alt=""
          loading="lazy"
          onError={() => setThere(false)}
          className="max-h-full max-w-full object-contain p-2"
        />
      )}
    </div>
  );
}
