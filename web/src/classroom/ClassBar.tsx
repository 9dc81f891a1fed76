import type { Person } from '@doodla/core';
import {
  Crosshair,
  DoorOpen,
  PenOff,
  Pen,
  QrCode,
  ScreenShare,
  Share,
  TabletSmartphone,
  Users,
} from 'lucide-react';
import { Popover } from 'radix-ui';
import type { SittingDetail } from '../api/lessons';
import { useStore } from '../live/store';
import { BringInMenu } from '../material/BringInMenu';
import { ShowMenu } from '../screen/ShowMenu';
import { Button } from '../ui/Button';
import { Switch } from '../ui/Switch';
import type { Workspace } from '../workspace/workspace';
import { spacedCode } from './spacedCode';

interface ClassBarProps {
  workspace: Workspace;
  sitting: SittingDetail;
  onJoin(): void;
  onHandOut(): void;
  onEnd(): void;
  onDevices(): void;
}

/** What a teacher needs for the class: the code, who is here, pens, hand out, end. */
export function ClassBar({ workspace, sitting, onJoin, onHandOut, onEnd, onDevices }: ClassBarProps) {
  const state = useStore(workspace.classroom!.state);
  const ended = state?.ended ?? sitting.endedAt !== null;
  const pensUp = state?.pensUp ?? false;
  const devices = state?.devices.filter(({ here }) => here).length ?? 0;
  return (
    <>
      {ended ? (
        <span className="px-3 font-bold">This class has ended</span>
      ) : (
        <Button
          look="onBoard"
          icon={<QrCode aria-hidden size={18} />}
          onClick={onJoin}
          aria-label={`Join code ${spacedCode(sitting.code)}`}
        >
          <span className="tracking-widest">{spacedCode(sitting.code)}</span>
        </Button>
      )}
      <PeopleMenu workspace={workspace} people={state?.people ?? []} ended={ended} />
      {!ended && <BringInMenu workspace={workspace} />}
      {!ended && <ShowMenu workspace={workspace} />}
      {!ended && (
        <Button
          look="onBoard"
          aria-pressed={pensUp}
          className={pensUp ? '!border-chalk !bg-chalk !text-board' : ''}
          icon={pensUp ? <Pen aria-hidden size={18} /> : <PenOff aria-hidden size={18} />}
          onClick={() => workspace.classroom!.setPens(!pensUp)}
        >
          {pensUp ? 'Pens up' : 'Pens down'}
        </Button>
      )}
      {!ended && (
        <Button
          look="onBoard"
          icon={<TabletSmartphone aria-hidden size={18} />}
          aria-label={`Devices: ${devices}`}
          onClick={onDevices}
        >
          {devices > 0 && devices}
        </Button>
      )}
      <Button look="onBoard" icon={<Share aria-hidden size={18} />} onClick={onHandOut}>
        Hand out
      </Button>
      {!ended && (
        <Button look="onBoard" icon={<DoorOpen aria-hidden size={18} />} onClick={onEnd}>
          End class
        </Button>
      )}
    </>
  );
}

interface PeopleMenuProps {
  workspace: Workspace;
  people: readonly Person[];
  ended: boolean;
}

function PeopleMenu({ workspace, people, ended }: PeopleMenuProps) {
  const presenters = workspace.classroom!.state.get()?.presenters ?? [];
  const { pointers, roam } = useStore(workspace.classroom!.scene);
  const here = people.filter((person) => person.here).length;
  const count = ended ? people.length : here;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button look="onBoard" icon={<Users aria-hidden size={18} />} aria-label={`Students: ${count}`}>
          {count}
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          className="z-40 max-h-[70dvh] w-72 overflow-auto rounded-2xl border-2 border-board-line bg-paper p-3 shadow-xl"
        >
          {people.length === 0 && <p>Nobody has joined yet.</p>}
          {!ended && (
            <Switch
              label="Students may turn pages by themselves"
              checked={roam}
              onChange={(on) => workspace.classroom!.setScene({ roam: on })}
            />
          )}
          <ul>
            {people.map(({ id, name, colour, here: isHere }) => (
              <li key={id} className="flex min-h-9 items-center gap-3">
                <span className="size-4 shrink-0 rounded-full" style={{ background: colour }} />
                <span className="grow truncate">{name}</span>
                {!ended && !isHere && <span className="text-sm text-ink-soft">away</span>}
                {!ended && (
                  <button
                    type="button"
                    aria-pressed={pointers.includes(id)}
                    aria-label={`${name} may point`}
                    title="May point"
                    onClick={() => workspace.letPoint(id, !pointers.includes(id))}
                    className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim aria-pressed:bg-chalk"
                  >
                    <Crosshair aria-hidden size={18} />
                  </button>
                )}
                {!ended && (
                  <button
                    type="button"
                    aria-pressed={presenters.includes(id)}
                    aria-label={`${name} may show their screen`}
                    title="May show their screen"
                    onClick={() => workspace.sharing.allow(id, !presenters.includes(id))}
                    className="grid size-11 place-items-center rounded-xl hover:bg-paper-dim aria-pressed:bg-chalk"
                  >
                    <ScreenShare aria-hidden size={18} />
                  </button>
                )}
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
