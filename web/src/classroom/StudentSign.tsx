import type { Freedom } from '@doodla/core';
import { Clapperboard, Download, Pen, PenOff, Play } from 'lucide-react';
import type { ReactNode } from 'react';
import { lazy, Suspense, useState } from 'react';
import { useStore } from '../store/useStore';
import type { Place } from '../api/joining';
import { HandButtons } from '../asking/HandButtons';
import { classes } from '../ui/classes';
import { NameTag } from '../ui/NameTag';
import type { PageDesk } from '../room/pageDesk';
import { TalkButton } from '../talk/TalkButton';
import { RecordingSign } from '../explain/RecordingSign';
import { SavedSign } from './SavedSign';
import { t } from '../words';

const ShowMenu = lazy(() => import('../sharing/ShowMenu').then((module) => ({ default: module.ShowMenu })));

const HandoutDialog = lazy(() => import('../handout/HandoutDialog'));
const ExplanationsDialog = lazy(() => import('../explain/ExplanationsDialog'));
const ReplayDialog = lazy(() => import('../replay/ReplayDialog'));

/** Pens are up, and for what. */
const PENS_UP = {
  ink: 'classroom.pensUpForInk',
  words: 'classroom.pensUpForWords',
  everything: 'common.pensUp',
} as const satisfies Record<Freedom, string>;

interface StudentSignProps {
  desk: PageDesk;
  place: Place;
  side: 'left' | 'right';
}

/** Who a student is, whether they may write, and what else the teacher lets them. */
export default function StudentSign({ desk, place: { student }, side }: StudentSignProps) {
  const state = useStore(desk.classroom!.state);
  const { freedom, handout, replay } = useStore(desk.room.rules);
  const up = desk.mayWrite;
  return (
    <div
      data-bar="student"
      className={classes(
        'absolute top-2 z-30 flex max-w-[calc(100vw-1rem)] flex-wrap items-center gap-x-3 gap-y-1 rounded-2xl bg-board forced-colors:border-2 px-4 py-2 text-paper shadow-xl compact:top-1 compact:border-0 compact:gap-x-2 compact:px-3 compact:py-1',
        side === 'left' ? 'left-2 compact:left-1' : 'right-2 compact:right-1',
      )}
    >
      <h1 className="sr-only">{state?.title}</h1>
      <NameTag {...student} />
      <span className="max-w-40 truncate font-bold compact:max-w-24">{student.name}</span>
      <span role="status" className="flex items-center gap-1.5">
        {state?.presenters.includes(student.id) && !state.ended && <MayShow desk={desk} />}
        {state?.ended ? t('classroom.thisClassHasEnded') : up ? <PensUp freedom={freedom} /> : <PensDown />}
      </span>
      {!state?.ended && up && <SavedSign room={desk.room} />}
      {!state?.ended && <HandButtons room={desk.room} brief />}
      <TalkButton room={desk.room} brief />
      {handout && (
        <Opener name={t('classroom.takeThePagesHome')} icon={<Download aria-hidden size={18} />}>
          {(onClose) => <HandoutDialog desk={desk} title={state?.title ?? ''} onClose={onClose} />}
        </Opener>
      )}
      {replay && (
        <Opener name={t('replay.entry')} icon={<Play aria-hidden size={18} />}>
          {(onClose) => <ReplayDialog desk={desk} onClose={onClose} />}
        </Opener>
      )}
      {replay && (
        <Opener name={t('explain.explanations')} icon={<Clapperboard aria-hidden size={18} />}>
          {(onClose) => <ExplanationsDialog desk={desk} onClose={onClose} />}
        </Opener>
      )}
      {state?.recording && <RecordingSign told={state.recording.told} />}
      <WhichPage desk={desk} />
    </div>
  );
}

/** Which page this is, and where the class is if it is elsewhere. */
function WhichPage({ desk }: { desk: PageDesk }) {
  const pages = useStore(desk.pages);
  const here = useStore(desk.pageId);
  const apart = useStore(desk.apart);
  const state = useStore(desk.classroom!.state);
  const numberOf = (page: string | undefined) => pages.findIndex(({ id }) => id === page) + 1;
  const [own, theirs] = [numberOf(here), numberOf(state?.page)];
  if (own === 0) return null;
  const isWith = state?.ended || theirs === 0 || own === theirs;
  return (
    <span className="flex flex-wrap items-center gap-2">
      {isWith ? (
        <span>{t('common.page', { number: own })}</span>
      ) : (
        <span role="status">{t('classroom.youAreOnPage', { own, theirs })}</span>
      )}
      {(!isWith || (apart && !state?.ended)) && (
        <button
          type="button"
          className="min-h-11 rounded-xl bg-paper px-3 font-bold text-board"
          onClick={() => (isWith ? desk.apart.set(false) : desk.rejoinClass())}
        >
          {t('classroom.backToTheClass')}
        </button>
      )}
    </span>
  );
}

/** A student whom the teacher lets may show their screen too. */
function MayShow({ desk }: { desk: PageDesk }) {
  return (
    <Suspense>
      <ShowMenu room={desk.room} />
    </Suspense>
  );
}

function PensUp({ freedom }: { freedom: Freedom }) {
  return (
    <>
      <Pen aria-hidden size={18} /> {t(PENS_UP[freedom])}
    </>
  );
}

interface OpenerProps {
  name: string;
  icon: ReactNode;
  children(onClose: () => void): ReactNode;
}

/** A button, and what it opens. */
function Opener({ name, icon, children }: OpenerProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="flex min-h-11 items-center gap-2 rounded-xl bg-board-light px-3 font-bold hover:bg-board-hover"
        onClick={() => setOpen(true)}
      >
        {icon}
        <span className="compact:sr-only">{name}</span>
      </button>
      {open && <Suspense>{children(() => setOpen(false))}</Suspense>}
    </>
  );
}

function PensDown() {
  return (
    <>
      <PenOff aria-hidden size={18} /> {t('common.pensDown')}
    </>
  );
}
