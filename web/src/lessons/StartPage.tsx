import { useQueryClient } from '@tanstack/react-query';
import { FilePlus2, Search } from 'lucide-react';
import { lazy, Suspense, useDeferredValue, useRef, useState } from 'react';
import type { DragEvent } from 'react';
import { Link, useSearchParams } from 'react-router';
import { lessonsQuery } from '../api/lessons';
import { SignOutButton } from '../people/SignOutButton';
import { LESSON_ENDINGS } from '../material/documents';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { LessonShelf } from './LessonShelf';
import { NewLessonMenu, useCreateLesson } from './NewLessonMenu';
import { SearchResults } from './SearchResults';
import { UploadDialog } from '../material/UploadDialog';
import { useTitle } from '../ui/useTitle';
import { LanguageChoice } from '../ui/LanguageChoice';
import { t } from '../words';

const StudentDataDialog = lazy(() => import('./StudentDataDialog'));

/** Fetches what a lesson is shown with, ahead of its opening; where that fails, opening it says so. */
const fetchLesson = () => void import('../classroom/PreparePage').catch(() => undefined);

/** The teacher's lessons, and the way to bring in a new one. */
export default function StartPage({ teacher }: { teacher: { name: string; admin: boolean } }) {
  useTitle(t('lessons.yourLessons'));
  const [params, setParams] = useSearchParams();
  const [question, setQuestion] = useState(() => params.get('q') ?? '');
  // In the address too, so that going back from what was found comes back to it.
  const ask = (next: string) => {
    setQuestion(next);
    setParams(next === '' ? {} : { q: next }, { replace: true });
  };
  // The letters that are typed come first, what they find a little later.
  const asked = useDeferredValue(question);
  const client = useQueryClient();
  const [files, setFiles] = useState<readonly File[]>([]);
  const [dragging, setDragging] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const [askingAbout, setAskingAbout] = useState(false);
  const create = useCreateLesson();

  const drop = (event: DragEvent) => {
    event.preventDefault();
    setDragging(false);
    const dropped = [...event.dataTransfer.files];
    const pictures = dropped.filter(
      ({ type, name }) => type.startsWith('image/') || /\.hei[cf]$/i.test(name),
    );
    if (pictures.length > 0 && pictures.length === dropped.length)
      create(undefined, { kind: 'pictures', files: pictures });
    else setFiles(dropped);
  };
  const closeUpload = () => {
    setFiles([]);
    void client.invalidateQueries({ queryKey: lessonsQuery.queryKey });
  };

  return (
    <div
      className={classes('min-h-full', dragging && 'bg-board/15')}
      onDragOver={(event) => {
        event.preventDefault();
        setDragging(true);
      }}
      onDragLeave={() => setDragging(false)}
      onDrop={drop}
    >
      <header className="flex flex-wrap items-center gap-3 bg-board px-4 py-3 text-paper sm:px-8">
        <img src="/icon.svg" alt="" className="size-9 rounded-lg" />
        <span className="text-2xl font-bold">{t('common.doodla')}</span>
        <span className="grow" />
        <LanguageChoice onBoard />
        <span className="hidden sm:inline">{teacher.name}</span>
        <SignOutButton />
      </header>
      <main className="mx-auto max-w-6xl p-4 sm:p-8">
        <div className="mb-6 flex flex-wrap items-end justify-between gap-4">
          <h1 className="text-3xl font-bold">{t('lessons.yourLessons')}</h1>
          <span className="grow" />
          <NewLessonMenu />
          <Button
            look="main"
            icon={<FilePlus2 aria-hidden size={20} />}
            onClick={() => chooser.current?.click()}
          >
            {t('lessons.newLessonFromADocument')}
          </Button>
          <input
            ref={chooser}
            type="file"
            multiple
            accept={LESSON_ENDINGS}
            aria-label={t('common.chooseDocuments')}
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => {
              setFiles([...(event.target.files ?? [])]);
              event.target.value = '';
            }}
          />
        </div>
        <SearchField value={question} onChange={ask} />
        {asked.trim() === '' ? <LessonShelf /> : <SearchResults question={asked} />}
        <p className="mt-10 flex flex-wrap items-center gap-x-6 border-t-2 border-paper-line pt-3">
          <button type="button" className="min-h-11 underline" onClick={() => setAskingAbout(true)}>
            {t('lessons.studentData')}
          </button>
          {teacher.admin && (
            <Link to="/school" className="inline-flex min-h-11 items-center underline">
              {t('school.theSchool')}
            </Link>
          )}
        </p>
      </main>
      {askingAbout && (
        <Suspense>
          <StudentDataDialog onClose={() => setAskingAbout(false)} />
        </Suspense>
      )}
      {files.length > 0 && <UploadDialog files={files} onBegin={fetchLesson} onClose={closeUpload} />}
    </div>
  );
}

function SearchField({ value, onChange }: { value: string; onChange(value: string): void }) {
  return (
    <search className="relative mb-6 block">
      <Search aria-hidden size={20} className="absolute start-3 top-3.5 text-ink-soft" />
      <input
        type="search"
        aria-label={t('lessons.search')}
        placeholder={t('lessons.searchLessonsClassesWords')}
        value={value}
        maxLength={200}
        onChange={(event) => onChange(event.target.value)}
        className="min-h-12 w-full rounded-xl border-2 border-paper-line bg-white ps-11 pe-3 text-lg"
      />
    </search>
  );
}
