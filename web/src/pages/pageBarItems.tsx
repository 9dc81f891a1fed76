import {
  Crop,
  Keyboard,
  LibraryBig,
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
import { t } from '../words';

/** What the page bar works on. */
export interface PageBar {
  desk: PageDesk;
  stage: Stage;
  fit: Fit;
  stripOpen: boolean;
  onToggleStrip(): void;
  listOpen: boolean;
  onToggleList(): void;
  shelfOpen: boolean;
  onToggleShelf(): void;
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
    label: t('common.smaller'),
    caption: t('common.smaller'),
    key: 'smaller',
    icon: <ZoomOut aria-hidden size={20} />,
    run: ({ stage }) => stage.zoomOut(),
  },
  {
    group: 'size',
    label: t('common.larger'),
    caption: t('common.larger'),
    key: 'larger',
    icon: <ZoomIn aria-hidden size={20} />,
    run: ({ stage }) => stage.zoomIn(),
  },
  {
    group: 'size',
    label: t('common.fitThePage'),
    caption: t('pages.wholePage'),
    key: 'fitPage',
    icon: <Maximize aria-hidden size={20} />,
    active: ({ fit }) => fit === 'page',
    run: ({ stage }) => stage.setFit('page'),
  },
  {
    group: 'size',
    label: t('common.fitTheWidth'),
    caption: t('pages.fullWidth'),
    key: 'fitWidth',
    icon: <MoveHorizontal aria-hidden size={20} />,
    active: ({ fit }) => fit === 'width',
    run: ({ stage }) => stage.setFit('width'),
  },
  {
    group: 'page',
    label: t('common.listOfWhatIsOn'),
    caption: t('common.list'),
    key: 'listMarks',
    icon: <ListTree aria-hidden size={20} />,
    active: ({ listOpen }) => listOpen,
    run: ({ onToggleList }) => onToggleList(),
  },
  {
    group: 'page',
    label: t('shelf.shelf'),
    caption: t('shelf.shelf'),
    icon: <LibraryBig aria-hidden size={20} />,
    when: ({ desk }) => desk.isTeacher,
    active: ({ shelfOpen }) => shelfOpen,
    run: ({ onToggleShelf }) => onToggleShelf(),
  },
  {
    group: 'page',
    label: t('common.grabAPicture'),
    caption: t('pages.grab'),
    key: 'grab',
    icon: <Crop aria-hidden size={20} />,
    run: ({ onGrab }) => onGrab(),
  },
  {
    group: 'page',
    label: t('common.presentNothingButThePage'),
    caption: t('pages.present'),
    key: 'present',
    icon: <Presentation aria-hidden size={20} />,
    when: ({ desk }) => desk.isTeacher,
    run: ({ onPresent }) => onPresent(),
  },
  {
    group: 'page',
    label: t('pages.keysAndSizeOfLetters'),
    caption: t('pages.keysLetters'),
    key: 'help',
    icon: <Keyboard aria-hidden size={20} />,
    run: ({ onShowHelp }) => onShowHelp(),
  },
  {
    group: 'pages',
    label: t('common.showAllPages'),
    caption: t('pages.allPages'),
    icon: <LayoutGrid aria-hidden size={20} />,
    when: ({ desk }) => desk.room.mayTurn,
    active: ({ stripOpen }) => stripOpen,
    run: ({ onToggleStrip }) => onToggleStrip(),
  },
];
