import {
  Crop,
  Keyboard,
  LayoutGrid,
  ListTree,
  Maximize,
  MoveHorizontal,
  Presentation,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import type { ReactNode } from 'react';
import type { Fit } from '../canvas/view';
import type { ActionId } from '../desk/shortcuts';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';

/** What the page bar works on. */
export interface PageBar {
  desk: PageDesk;
  stage: Stage;
  fit: Fit;
  stripOpen: boolean;
  onToggleStrip(): void;
  listOpen: boolean;
  onToggleList(): void;
  onShowHelp(): void;
  onGrab(): void;
  onPresent(): void;
}

/** A button of the page bar. */
export interface PageBarItem {
  readonly group: 'size' | 'page' | 'pages';
  readonly label: string;
  /** Said in a word where there is no room for more. */
  readonly caption: string;
  readonly icon: ReactNode;
  readonly key?: ActionId;
  when?(bar: PageBar): boolean;
  active?(bar: PageBar): boolean;
  run(bar: PageBar): void;
}

/** What can be done with the page in sight, beside writing on it and turning it. */
export const PAGE_BAR: readonly PageBarItem[] = [
  {
    group: 'size',
    label: 'Smaller',
    caption: 'Smaller',
    key: 'smaller',
    icon: <ZoomOut aria-hidden size={20} />,
    run: ({ stage }) => stage.zoomOut(),
  },
  {
    group: 'size',
    label: 'Larger',
    caption: 'Larger',
    key: 'larger',
    icon: <ZoomIn aria-hidden size={20} />,
    run: ({ stage }) => stage.zoomIn(),
  },
  {
    group: 'size',
    label: 'Fit the page',
    caption: 'Whole page',
    key: 'fitPage',
    icon: <Maximize aria-hidden size={20} />,
    active: ({ fit }) => fit === 'page',
    run: ({ stage }) => stage.setFit('page'),
  },
  {
    group: 'size',
    label: 'Fit the width',
    caption: 'Full width',
    key: 'fitWidth',
    icon: <MoveHorizontal aria-hidden size={20} />,
    active: ({ fit }) => fit === 'width',
    run: ({ stage }) => stage.setFit('width'),
  },
  {
    group: 'page',
    label: 'List of what is on the page',
    caption: 'List',
    key: 'listMarks',
    icon: <ListTree aria-hidden size={20} />,
    active: ({ listOpen }) => listOpen,
    run: ({ onToggleList }) => onToggleList(),
  },
  {
    group: 'page',
    label: 'Grab a picture',
    caption: 'Grab',
    key: 'grab',
    icon: <Crop aria-hidden size={20} />,
    run: ({ onGrab }) => onGrab(),
  },
  {
    group: 'page',
    label: 'Present: nothing but the page',
    caption: 'Present',
    key: 'present',
    icon: <Presentation aria-hidden size={20} />,
    when: ({ desk }) => desk.isTeacher,
    run: ({ onPresent }) => onPresent(),
  },
  {
    group: 'page',
    label: 'Keys and size of letters',
    caption: 'Keys, letters',
    key: 'help',
    icon: <Keyboard aria-hidden size={20} />,
    run: ({ onShowHelp }) => onShowHelp(),
  },
  {
    group: 'pages',
    label: 'Show all pages',
    caption: 'All pages',
    icon: <LayoutGrid aria-hidden size={20} />,
    when: ({ desk }) => desk.room.mayTurn,
    active: ({ stripOpen }) => stripOpen,
    run: ({ onToggleStrip }) => onToggleStrip(),
  },
];
