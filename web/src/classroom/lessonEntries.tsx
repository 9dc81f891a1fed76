import type { SittingSummary } from '@doodla/core';
import { AppWindow, Clapperboard, History, Presentation, Share } from 'lucide-react';
import { lazy } from 'react';
import { BringInMenu } from '../material/BringInMenu';
import type { PageDesk } from '../room/pageDesk';
import type { BarEntry } from '../ui/EntryBar';
import { t } from '../words';

/** A lesson between classes, as its bar knows it. */
export interface InLesson {
  lesson: string;
  title: string;
  desk: PageDesk;
  sittings: readonly SittingSummary[];
  /** Whether one of its classes has not ended. */
  isOn: boolean;
  /** Whose lesson it is, where it is a colleague's: its classes are theirs. */
  owner: string | null;
  /** Starts a class, or goes on with the one that is on. */
  onTeach(): void;
}

/** What a teacher needs while preparing: material, earlier classes, hand out, start. */
export const LESSON_ENTRIES: readonly BarEntry<InLesson>[] = [
  { id: 'bringIn', Part: BringInMenu },
  {
    id: 'sittings',
    label: t('classroom.classes'),
    icon: <History aria-hidden size={18} />,
    when: ({ sittings }) => sittings.length > 0,
    text: ({ sittings }) => `${t('classroom.classes')} (${sittings.length})`,
    Sheet: lazy(() => import('../sittings/SittingsDialog')),
  },
  {
    id: 'companion',
    label: t('classroom.companion'),
    icon: <AppWindow aria-hidden size={18} />,
    Sheet: lazy(() => import('./LessonCompanionDialog')),
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
    id: 'teach',
    label: t('classroom.startClass'),
    icon: <Presentation aria-hidden size={18} />,
    main: true,
    when: ({ owner }) => owner === null,
    text: ({ isOn }) => (isOn ? t('classroom.goOnWithClass') : t('classroom.startClass')),
    run: ({ onTeach }) => onTeach(),
  },
];
