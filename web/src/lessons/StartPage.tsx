import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FilePlus2, LogOut } from 'lucide-react';
import { useRef, useState } from 'react';
import type { DragEvent } from 'react';
import { lessonsQuery } from '../api/lessons';
import { signOut } from '../api/people';
import { useRefreshMe } from '../people/useRefreshMe';
import { DOCUMENT_ENDINGS } from '../material/documents';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { LessonGrid } from './LessonGrid';
import { NewLessonMenu, useCreateLesson } from './NewLessonMenu';
import { OpenClasses } from './OpenClasses';
import { UploadDialog } from '../material/UploadDialog';
import { useTitle } from '../ui/useTitle';
import { LanguageChoice } from '../ui/LanguageChoice';
import { t } from '../words';

/** Fetches what a lesson is shown with, ahead of its opening; where that fails, opening it says so. */
const fetchLesson = () => void import('../classroom/PreparePage').catch(() => undefined);

/** The teacher's lessons, and the way to bring in a new one. */
export default function StartPage({ teacher }: { teacher: { name: string } }) {
  useTitle(t('lessons.yourLessons'));
  const lessons = useQuery(lessonsQuery);
  const client = useQueryClient();
  const refreshMe = useRefreshMe();
  const [files, setFiles] = useState<readonly File[]>([]);
  const [dragging, setDragging] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
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
        <Button
          look="onBoard"
          icon={<LogOut aria-hidden size={18} />}
          onClick={() => void signOut().then(refreshMe)}
        >
          {t('lessons.signOut')}
        </Button>
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
            accept={DOCUMENT_ENDINGS}
            aria-label={t('common.chooseDocuments')}
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => {
              setFiles([...(event.target.files ?? [])]);
              event.target.value = '';
            }}
          />
        </div>
        <OpenClasses />
        {lessons.isError && <p role="alert">{lessons.error.message}</p>}
        {lessons.data?.length === 0 && <EmptyShelf />}
        <LessonGrid lessons={lessons.data ?? []} />
      </main>
      {files.length > 0 && <UploadDialog files={files} onBegin={fetchLesson} onClose={closeUpload} />}
    </div>
  );
}

function EmptyShelf() {
  return (
    <div className="rounded-2xl border-2 border-dashed border-paper-line p-10 text-center text-lg">
      <p className="font-bold">{t('lessons.nothingHereYet')}</p>
      <p>{t('lessons.dropAPdfSlidesA')}</p>
    </div>
  );
}
