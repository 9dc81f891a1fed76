import { AlarmClock } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { IconButton } from '../ui/IconButton';
import type { Workspace } from '../workspace/workspace';
import { TimeLapse } from './timeLapse';

const SECONDS = [5, 15, 60, 300];

/** Takes a picture onto a page of its own again and again, such as of something that grows or melts. */
export function TimeLapseButton({ workspace }: { workspace: Workspace }) {
  const [running, setRunning] = useState<TimeLapse>();
  useEffect(() => () => running?.stop(), [running]);
  if (running) {
    return (
      <IconButton
        label="Stop taking pictures"
        active
        icon={<AlarmClock aria-hidden size={20} />}
        onClick={() => setRunning(undefined)}
      />
    );
  }
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label="A picture again and again" icon={<AlarmClock aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          sideOffset={8}
          className="z-40 rounded-2xl border-2 border-board-line bg-paper p-2 shadow-xl"
        >
          {SECONDS.map((seconds) => (
            <DropdownMenu.Item
              key={seconds}
              className="flex min-h-11 cursor-pointer items-center rounded-xl px-3 outline-none data-highlighted:bg-paper-dim"
              onSelect={() => setRunning(new TimeLapse(workspace, seconds))}
            >
              Every{' '}
              {seconds < 60 ? `${seconds} seconds` : seconds === 60 ? 'minute' : `${seconds / 60} minutes`}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
