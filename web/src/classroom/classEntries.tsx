import type { ClassState } from '@doodla/core';
import {
  CircleHelp,
  Clapperboard,
  DoorOpen,
  Pen,
  PenOff,
  Play,
  QrCode,
  Share,
  TabletSmartphone,
} from 'lucide-react';
import { lazy } from 'react';
import type { SittingDetail } from '@doodla/core';
import { BringInMenu } from '../material/BringInMenu';
import type { PageDesk } from '../room/pageDesk';
import type { Room } from '../room/room';
import { ShowMenu } from '../sharing/ShowMenu';
import { Button } from '../ui/Button';
import type { BarEntry } from '../ui/EntryBar';
import { spacedCode } from '../ui/spacedCode';
import { PeopleMenu } from '../roster/PeopleMenu';
import { TalkButton } from '../talk/TalkButton';
import { WayMenu } from '../roster/WayMenu';
import { pensLabel } from '../ui/pensLabel';
import { t } from '../words';

/** A class as its bar knows it. */
export interface InClass {
  room: Room;
  desk: PageDesk;
  sitting: SittingDetail;
  title: string;
  state: ClassState | undefined;
  isOpen: boolean;
  onEnded(): void;
}

const isOpen = (props: InClass) => props.isOpen;
const devicesHere = ({ state }: InClass) => state?.devices.filter(({ here }) => here).length ?? 0;

/** What a teacher needs for the class: the code, who is here, pens, hand out, end. */
export const CLASS_ENTRIES: readonly BarEntry<InClass>[] = [
  {
    id: 'join',
    label: t('classroom.joinCode'),
    icon: <QrCode aria-hidden size={18} />,
    when: isOpen,
    text: ({ sitting }) => <span className="tracking-widest">{spacedCode(sitting.code)}</span>,
    name: ({ sitting }) => t('classroom.joinCode2', { number: spacedCode(sitting.code) }),
    Sheet: lazy(() => import('../roster/JoinDialog')),
  },
  { id: 'people', Part: PeopleMenu },
  { id: 'bringIn', when: isOpen, Part: BringInMenu },
  { id: 'show', when: isOpen, Part: ShowMenu },
  { id: 'pens', when: isOpen, Part: PensSwitch },
  { id: 'way', when: isOpen, Part: WayMenu },
  {
    id: 'ask',
    label: t('asking.ask'),
    icon: <CircleHelp aria-hidden size={18} />,
    when: isOpen,
    text: ({ state }) => state?.poll?.answered ?? null,
    name: ({ state }) =>
      state?.poll ? t('asking.askedNow', { count: state.poll.answered }) : t('asking.askTheClass'),
    Sheet: lazy(() => import('../asking/AskDialog')),
  },
  { id: 'talk', Part: TalkButton },
  {
    id: 'devices',
    label: t('classroom.devices'),
    icon: <TabletSmartphone aria-hidden size={18} />,
    when: isOpen,
    text: (props) => devicesHere(props) || null,
    name: (props) => t('classroom.devices2', { devicesHere: devicesHere(props) }),
    Sheet: lazy(() => import('./DevicesDialog')),
  },
  {
    id: 'replay',
    label: t('replay.entry'),
    icon: <Play aria-hidden size={18} />,
    // While a class goes on, its bar is for the class; then it is in the menu of each page.
    when: (props) => !isOpen(props),
    Sheet: lazy(() => import('../replay/ReplayDialog')),
  },
  {
    id: 'explain',
    label: t('explain.explanations'),
    icon: <Clapperboard aria-hidden size={18} />,
    text: () => null,
    name: () => t('explain.explanations'),
    Sheet: lazy(() => import('../explain/ExplanationsDialog')),
  },
  {
    id: 'handout',
    label: t('common.handOut'),
    icon: <Share aria-hidden size={18} />,
    Sheet: lazy(() => import('../handout/HandoutDialog')),
  },
  {
    id: 'end',
    label: t('classroom.endClass'),
    icon: <DoorOpen aria-hidden size={18} />,
    when: isOpen,
    Sheet: lazy(() => import('../sittings/EndDialog')),
  },
];

function PensSwitch({ room, state }: InClass) {
  const pensUp = state?.pensUp ?? false;
  return (
    <Button
      look="onBoard"
      aria-label={pensLabel(pensUp)}
      title={pensLabel(pensUp)}
      className={pensUp ? '!border-chalk !bg-chalk !text-board' : ''}
      icon={pensUp ? <Pen aria-hidden size={18} /> : <PenOff aria-hidden size={18} />}
      onClick={() => room.classroom!.setPens(!pensUp)}
    >
      {pensUp ? t('common.pensUp') : t('common.pensDown')}
    </Button>
  );
}
