import type { Aside } from '@doodla/core/answers';
import { fetchStored } from '../api/http';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

type AsideDesk = Pick<PageDesk, 'pages' | 'room' | 'tellProblem' | 'token' | 'turnTo'>;

/** What is heard now by a tap. */
let playing: { stop(): void } | undefined;

/** Does what a tap does beside the page, for whoever has tapped. */
export function doAside(desk: AsideDesk, aside: Aside): void {
  if (aside.do === 'page') return desk.turnTo(aside.page);
  if (aside.do === 'play') return play(desk, aside.page);
  if (aside.do === 'tune') return hearTune(desk, aside.notes);
  if (!('speechSynthesis' in window)) return desk.room.tellNotice(aside.text);
  const words = new SpeechSynthesisUtterance(aside.text);
  words.lang = aside.language;
  speechSynthesis.cancel();
  speechSynthesis.speak(words);
}

function hearTune(desk: AsideDesk, notes: string): void {
  import('./tuneOf').then(
    ({ playNotes }) => {
      if (!playNotes(notes)) desk.tellProblem(t('figures.badNote', { text: notes.slice(0, 40) }));
    },
    (error: Error) => desk.tellProblem(error.message),
  );
}

/** Plays the sound of a page from its beginning; what was heard before stops. */
function play(desk: AsideDesk, page: string): void {
  const surface = desk.pages.get().find(({ id }) => id === page)?.surface;
  if (surface?.kind !== 'media') return desk.tellProblem(t('answers.soundIsGone'));
  playing?.stop();
  const abort = new AbortController();
  const sound = new Audio();
  playing = {
    stop() {
      abort.abort();
      sound.pause();
    },
  };
  const address = `/api/materials/${surface.material}/file`;
  const { token } = desk;
  const fetched = async () => {
    const options = { token, signal: abort.signal };
    return (await fetchStored(address, options, t('media.theRecordingCouldNotBe'))).blob();
  };
  void hear(sound, fetched).catch((error: Error) => {
    if (!abort.signal.aborted) desk.tellProblem(error.message);
  });
}

async function hear(sound: HTMLAudioElement, fetched: () => Promise<Blob>): Promise<void> {
  const address = URL.createObjectURL(await fetched());
  const done = () => URL.revokeObjectURL(address);
  sound.addEventListener('ended', done);
  sound.addEventListener('error', done);
  sound.src = address;
  await sound.play();
}
