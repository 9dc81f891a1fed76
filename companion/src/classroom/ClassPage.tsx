import { useStore } from '@web/store/useStore';
import { Button } from '@web/ui/Button';
import { Problem } from '@web/ui/Problem';
import { TextField } from '@web/ui/TextField';
import { pickScreen } from '@web/screen/sources';
import { t } from '@web/words';
import { AppWindow, Camera, Copy, LogOut, ScrollText, Square } from 'lucide-react';
import type { FormEvent } from 'react';
import { useEffect, useState } from 'react';
import { say } from '../words';
import { ClassLink } from './classLink';
import type { Paired } from './pairing';
import { lastServer, pair, pairedBefore, unpair } from './pairing';
import { serverOf } from './serverOf';
import { noteFrames, Showing } from './showing';
import type { TabLink } from './tabLink';
import { fileOf } from './tabLink';

/** From where a tab is brought into a class or lesson. */
export function ClassPage({ tab }: { tab: TabLink }) {
  const [link, setLink] = useState<ClassLink>();
  const [isKnown, setKnown] = useState(false);
  const enter = (place: Paired) => setLink(new ClassLink(place));
  useEffect(() => {
    pairedBefore()
      .then((place) => place && enter(place))
      .finally(() => setKnown(true))
      // Then a code is asked for.
      .catch(() => undefined);
  }, []);
  if (!isKnown) return null;
  const leave = () => {
    link?.close();
    setLink(undefined);
    void unpair();
  };
  return (
    <main className="mx-auto flex min-h-full max-w-md flex-col gap-4 p-6">
      <h1 className="text-2xl font-bold">{say('intoClass')}</h1>
      {link ? <InClass link={link} tab={tab} onLeave={leave} /> : <Pairing onPaired={enter} />}
    </main>
  );
}

function Pairing({ onPaired }: { onPaired(place: Paired): void }) {
  const [server, setServer] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  useEffect(() => {
    // Without the address of last time it is typed again.
    lastServer().then(setServer, () => setServer(''));
  }, []);
  if (server === undefined) return null;
  const enter = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const fields = new FormData(event.currentTarget);
    const origin = serverOf(fields.get('server') as string);
    if (origin === undefined) return setProblem(say('noServer'));
    setBusy(true);
    try {
      onPaired(await pair(origin, fields.get('code') as string));
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <form onSubmit={(event) => void enter(event)}>
      <p className="mb-4">{say('howToPair')}</p>
      <TextField
        label={say('serverAddress')}
        name="server"
        defaultValue={server}
        required
        spellCheck={false}
      />
      <TextField
        label={t('devices.code')}
        name="code"
        autoComplete="off"
        autoCapitalize="characters"
        spellCheck={false}
        maxLength={12}
        required
        className="text-center text-2xl tracking-[0.3em] uppercase"
      />
      <Problem>{problem}</Problem>
      <Button type="submit" look="main" className="w-full" disabled={isBusy}>
        {t('devices.connect')}
      </Button>
    </form>
  );
}

interface InClassProps {
  link: ClassLink;
  tab: TabLink;
  onLeave(): void;
}

function InClass({ link, tab, onLeave }: InClassProps) {
  const { sitting } = link;
  const status = useStore(link.line.status);
  const problem = useStore(link.problem);
  const [said, setSaid] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const [showing, setShowing] = useState<Showing>();
  const bring = (how: () => Promise<string>) => () => {
    setBusy(true);
    setSaid(undefined);
    link.problem.set(undefined);
    how()
      .then(setSaid, (error: Error) => link.problem.set(error.message))
      .finally(() => setBusy(false))
      // What failed has been said.
      .catch(() => undefined);
  };
  const show = async (sitting: string) => {
    const source = await pickScreen();
    if (!source) return say('notShown');
    noteFrames(source);
    const begun = new Showing(link, sitting, tab, source);
    begun.isOn.subscribe(() => setShowing(undefined));
    await begun.start();
    setShowing(begun);
    return say('isShown');
  };
  if (status === 'rejected') return <Out onLeave={onLeave} />;
  return (
    <>
      <p role="status">
        {status === 'online' ? say(sitting === undefined ? 'connectedLesson' : 'connected') : say('waiting')}
      </p>
      <h2 className="font-bold">{say('bringIn')}</h2>
      <div className="grid gap-2">
        <Button
          disabled={isBusy}
          icon={<Copy aria-hidden size={20} />}
          onClick={bring(() => bringCopy(link, tab))}
        >
          {say('asCopy')}
        </Button>
        <Button
          disabled={isBusy}
          icon={<Camera aria-hidden size={20} />}
          onClick={bring(() => bringPicture(link, tab, 'sight'))}
        >
          {say('asSight')}
        </Button>
        <Button
          disabled={isBusy}
          icon={<ScrollText aria-hidden size={20} />}
          onClick={bring(() => bringPicture(link, tab, 'page'))}
        >
          {say('asPage')}
        </Button>
      </div>
      {sitting !== undefined && (
        <>
          <h2 className="font-bold">{say('showTab')}</h2>
          {showing ? (
            <Button look="alarm" icon={<Square aria-hidden size={20} />} onClick={() => void showing.stop()}>
              {say('stopShowing')}
            </Button>
          ) : (
            <Button
              look="main"
              disabled={isBusy}
              icon={<AppWindow aria-hidden size={20} />}
              onClick={bring(() => show(sitting))}
            >
              {say('startShowing')}
            </Button>
          )}
        </>
      )}
      <Problem>{problem}</Problem>
      {said !== undefined && <p role="status">{said}</p>}
      <Button className="mt-auto" icon={<LogOut aria-hidden size={20} />} onClick={onLeave}>
        {say('leaveClass')}
      </Button>
    </>
  );
}

function Out({ onLeave }: { onLeave(): void }) {
  return (
    <>
      <Problem>{say('thrownOut')}</Problem>
      <Button look="main" onClick={onLeave}>
        {say('newCode')}
      </Button>
    </>
  );
}

async function bringCopy(link: ClassLink, tab: TabLink): Promise<string> {
  const about = await tab.about();
  if (!about) throw new Error(say('noTab'));
  const { lost } = await link.bringCopy(await tab.copy(), about.width, await tab.marks());
  return lost === 0 ? say('broughtIn') : say('broughtInWithout', { count: lost });
}

async function bringPicture(link: ClassLink, tab: TabLink, of: 'sight' | 'page'): Promise<string> {
  const about = await tab.about();
  if (!about) throw new Error(say('noTab'));
  const pictured = await tab.picture(of);
  if (!pictured) throw new Error(say('noPicture'));
  const files = await Promise.all(pictured.pieces.map(({ data }) => fileOf(data)));
  await link.bringPictures(files, pictured.title);
  return say('broughtIn');
}
