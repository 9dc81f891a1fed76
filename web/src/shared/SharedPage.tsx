import type { SharedLinkDoor } from '@doodla/core';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { RequestError } from '../api/http';
import { doorOf, pagesOf } from '../api/links';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import { Button } from '../ui/Button';
import { Front } from '../ui/Front';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { useTitle } from '../ui/useTitle';
import { t } from '../words';

/** Pages that somebody was given a link to: shown without a sign-in, and nothing else. */
export default function SharedPage() {
  const { token = '' } = useParams();
  const [door, setDoor] = useState<SharedLinkDoor>();
  const [pages, setPages] = useState<string>();
  const [problem, setProblem] = useState<string>();

  useEffect(() => {
    let gone = false;
    doorOf(token)
      .then(async (told) => {
        const shown = told.hasPassword ? undefined : await pagesOf(token, undefined);
        if (gone) return;
        setDoor(told);
        setPages(shown);
      })
      .catch((error: Error) => !gone && setProblem(error.message));
    return () => {
      gone = true;
    };
  }, [token]);

  if (door && pages !== undefined) return <Shown door={door} pages={pages} />;
  if (door) return <Locked door={door} token={token} onOpen={setPages} />;
  return (
    <Front title={problem ? t('shared.cannotBeShown') : t('common.opening')}>
      <Problem>{problem}</Problem>
    </Front>
  );
}

interface LockedProps {
  door: SharedLinkDoor;
  token: string;
  onOpen(pages: string): void;
}

function Locked({ door, token, onOpen }: LockedProps) {
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string>();
  const open = () => {
    setProblem(undefined);
    pagesOf(token, password).then(onOpen, (error: Error) => {
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
          {t('shared.show')}
        </Button>
      </form>
    </Front>
  );
}

function Shown({ door, pages }: { door: SharedLinkDoor; pages: string }) {
  useTitle(door.title);
  const save = () => saveFile(new Blob([pages], { type: 'text/html' }), fileName(door.title, 'html'));
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
      {/* Nothing in it may run, go anywhere or know where it is. */}
      <iframe title={t('shared.pages')} sandbox="" srcDoc={pages} className="w-full grow border-0" />
    </main>
  );
}
