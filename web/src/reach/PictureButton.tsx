import { ImagePlus } from 'lucide-react';
import { useRef } from 'react';
import { useStore } from '../store/store';
import { IconButton } from '../ui/IconButton';
import type { Workspace } from '../workspace/workspace';

/** Chooses picture files to put on the page. */
export function PictureButton({ workspace, side }: { workspace: Workspace; side: 'left' | 'right' }) {
  const chooser = useRef<HTMLInputElement>(null);
  useStore(workspace.mode);
  return (
    <>
      <IconButton
        label="Picture (or drop or paste one)"
        caption="Picture"
        icon={<ImagePlus aria-hidden />}
        disabled={!workspace.mayWrite}
        tooltipSide={side}
        className="min-h-12"
        onClick={() => chooser.current?.click()}
      />
      <input
        ref={chooser}
        type="file"
        accept="image/*,.heic,.heif"
        multiple
        aria-label="Choose pictures"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          void workspace.pictureActions.place([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </>
  );
}
