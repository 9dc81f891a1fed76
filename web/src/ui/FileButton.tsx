import type { ReactNode } from 'react';
import { useRef } from 'react';
import { Button } from './Button';

interface FileButtonProps {
  label: string;
  accept: string;
  several?: boolean;
  icon: ReactNode;
  onFiles(files: readonly File[]): void;
}

/** Opens the choice of files. */
export function FileButton({ label, accept, several = false, icon, onFiles }: FileButtonProps) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={chooser}
        type="file"
        accept={accept}
        multiple={several}
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button icon={icon} onClick={() => chooser.current!.click()}>
        {label}
      </Button>
    </>
  );
}
