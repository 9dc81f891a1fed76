import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { Store } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import { lessonQuery, startSitting } from '../api/lessons';
import { makePicturePages, takeBeginning } from './beginWith';
import { OpenedEntry } from '../ui/entries';
import { EntryBar, entryToOpen } from '../ui/EntryBar';
import { useWorkspace } from '../room/useWorkspace';
import type { PageDesk } from '../room/pageDesk';
import type { InLesson } from './lessonEntries';
import { LESSON_ENTRIES } from './lessonEntries';
import { JUST_STARTED, PRESENTING } from './TeachPage';
import { CannotOpen } from '../ui/CannotOpen';
import { SavedSign } from './SavedSign';
import { TopBar } from './TopBar';
import { useCoverKeeper } from './useCoverKeeper';
import { WorkspaceView } from './WorkspaceView';
import { t } from '../words';
import { dateAndTime } from '../words/dates';

const NO_PAGE = new Store<string | undefined>(undefined);
const RecordingDesk = lazy(() => import('../explain/RecordingDesk'));
const PhotoDialog = lazy(() => import('../material/PhotoDialog'));

/** A lesson between classes: what is written here is prepared, for every class. */
export default function PreparePage() {
  const { lesson = '' } = useParams();
  const [params] = useSearchParams();
  const [startPage] = useState(() => params.get('page'));
  const query = useQuery(lessonQuery(lesson));
  const workspace = useWorkspace({ lesson, ...(startPage !== null && { startPage }) });
  const desk = workspace?.main;
  const navigate = useNavigate();
  const [showing, setShowing] = useState<string>();
  useRememberedPage(desk);
  useCoverKeeper(desk);
  const [photo, setPhoto] = useState(false);
  useBeginning(lesson, desk, () => setPhoto(true));

  if (query.isError) return <CannotOpen what="lesson" reason={query.error.message} />;
  const title = query.data?.title ?? '';
  const sittings = query.data?.sittings ?? [];
  const open = sittings.find(({ endedAt }) => endedAt === null);
  const start = (state: string, page?: string) =>
    startSitting(lesson, `${title}, ${dateAndTime(Date.now())}`, page).then(
      ({ id }) => void navigate(`/sitting/${id}`, { state }),
      (error: Error) => {
        toast.error(error.message);
        void query.refetch();
      },
    );
  const goOn = () => void navigate(`/sitting/${open!.id}`);
  // What is written while presenting is no prepared mark: it is kept or dropped at the end, like a class's.
  const present = () => (open ? goOn() : void start(PRESENTING, desk?.pageId.get()));
  if (!workspace || !desk) return null;
  const onTeach = () => (open ? goOn() : void start(JUST_STARTED, desk.pageId.get()));
  const owner = query.data?.owner ?? null;
  const inLesson: InLesson = { lesson, title, desk, sittings, isOn: open !== undefined, owner, onTeach };
  return (
    <WorkspaceView
      workspace={workspace}
      lessonTitle={title}
      onPresent={owner === null ? present : undefined}
      corners={(arrangement, side) => (
        <TopBar
          back="/"
          backLabel={t('classroom.backToYourLessons')}
          title={title}
          doing="preparing"
          sign={<SavedSign room={desk.room} />}
          arrangement={arrangement}
          side={side}
        >
          <EntryBar entries={LESSON_ENTRIES} props={inLesson} onOpen={setShowing} />
        </TopBar>
      )}
    >
      <OpenedEntry
        entry={entryToOpen(LESSON_ENTRIES, showing)}
        props={inLesson}
        onClose={() => setShowing(undefined)}
      />
      <Suspense>
        <RecordingDesk desk={desk} />
      </Suspense>
      <Suspense>{photo && <PhotoDialog desk={desk} onClose={() => setPhoto(false)} />}</Suspense>
    </WorkspaceView>
  );
}

/** Puts into a new lesson what it begins with, as soon as its pages are there. */
function useBeginning(lesson: string, desk: PageDesk | undefined, onPhoto: () => void): void {
  const page = useStore(desk?.pageId ?? NO_PAGE);
  useEffect(() => {
    if (!desk || page === undefined) return;
    const beginning = takeBeginning(lesson);
    if (beginning?.kind === 'photo') onPhoto();
    if (beginning?.kind === 'pictures') void makePicturePages(desk, beginning.files);
  }, [lesson, desk, page, onPhoto]);
}

/** Keeps the shown page in the address, so that a reload comes back to it. */
function useRememberedPage(desk: PageDesk | undefined): void {
  const [, setParams] = useSearchParams();
  useEffect(
    () =>
      desk?.pageId.subscribe(() => {
        const page = desk.pageId.get();
        if (page === undefined) return;
        setParams((params) => ({ ...Object.fromEntries(params), page }), { replace: true });
      }),
    [desk, setParams],
  );
}
