import type { SharedLinkDoor } from '@doodla/core';
import { Download } from 'lucide-react';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { RequestError } from '../api/http';
import { doorOf, shownBy } from '../api/links';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import { Button } from '../ui/Button';
import { Front } from '../ui/Front';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { useTitle } from '../ui/useTitle';
import { t } from '../words';

const SharedExplanation = lazy(() => import('./SharedExplanation'));

/** Pages or an explanation that somebody was given a link to: shown without a sign-in, and nothing else. */
export default function SharedPage() {
  const { token = '' } = useParams();
  const [door, setDoor] = useState<SharedLinkDoor>();
  const [shown, setShown] = useState<Blob>();
  const [problem, setProblem] = useState<string>();

  useEffect(() => {
    let gone = false;
    doorOf(token)
      .then(async (told) => {
        const first = told.hasPassword ? undefined : await shownBy(token, undefined);
        if (gone) return;
        setDoor(told);
        setShown(first);
      })
      .catch((error: Error) => !gone && setProblem(error.message));
    return () => {
      gone = true;
    };
  }, [token]);

  if (door && shown)
    return door.plays ? (
      <Suspense>
        <SharedExplanation door={door} shown={shown} />
      </Suspense>
    ) : (
      <Shown door={door} shown={shown} />
    );
  if (door) return <Locked door={door} token={token} onOpen={setShown} />;
  return (
    <Front title={problem ? t('shared.cannotBeShown') : t('common.opening')}>
      <Problem>{problem}</Problem>
    </Front>
  );
}

interface LockedProps {
  door: SharedLinkDoor;
  token: string;
  onOpen(shown: Blob): void;
}

function Locked({ door, token, onOpen }: LockedProps) {
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string>();
  const open = () => {
    setProblem(undefined);
    shownBy(token, password).then(onOpen, (error: Error) => {
      setProblem(error.message);
      if (error instanceof RequestError && error.code === 'wrong-link-password') setPassword('');
    });
  };
  return (
    <Front title={door.title}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          open();
        }}
      >
        <TextField
          label={t('shared.password')}
          type="password"
          autoComplete="off"
          autoFocus
          value={password}
          error={problem}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Button type="submit" look="main" disabled={password === ''}>
          {t(door.plays ? 'shared.play' : 'shared.show')}
        </Button>
      </form>
    </Front>
  );
}

function Shown({ door, shown }: { door: SharedLinkDoor; shown: Blob }) {
  useTitle(door.title);
  const [pages, setPages] = useState<string>();
  useEffect(() => void shown.text().then(setPages, () => undefined), [shown]); // It is here as a whole.
  const save = () => saveFile(shown, fileName(door.title, 'html'));
  return (
    <main className="flex h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 bg-board px-4 py-2 text-paper">
        <img src="/icon.svg" alt="" className="size-8 rounded-lg" />
        <h1 className="grow text-lg font-bold">{door.title}</h1>
        {door.mayDownload && (
          <Button look="onBoard" icon={<Download aria-hidden size={18} />} onClick={save}>
            {t('shared.save')}
          </Button>
        )}
      </header>
      {/* Nothing in it may run, go anywhere or know where it is. One that was empty before may stay so: it begins with all of it. */}
      {pages !== undefined && (
        <iframe title={t('shared.pages')} sandbox="" srcDoc={pages} className="w-full grow border-0" />
      )}
    </main>
  );
}
