import { ImagePlus } from 'lucide-react';
import { useRef } from 'react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { OpensTo } from './reachState';
import { t } from '../words';

/** Chooses picture files to put on the page. */
export function PictureButton({ desk, side }: { desk: PageDesk; side: OpensTo }) {
  const chooser = useRef<HTMLInputElement>(null);
  useStore(desk.room.mode);
  useStore(desk.room.rules);
  return (
    <>
      <IconButton
        label={t('reach.pictureOrDropOrPaste')}
        caption={t('reach.picture')}
        icon={<ImagePlus aria-hidden />}
        disabled={!desk.room.mayPut('picture')}
        tooltipSide={side}
        className="min-h-12"
        onClick={() => chooser.current?.click()}
      />
      <input
        ref={chooser}
        type="file"
        accept="image/*,.heic,.heif"
        multiple
        aria-label={t('reach.choosePictures')}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          void desk.pictureActions.place([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </>
  );
}
