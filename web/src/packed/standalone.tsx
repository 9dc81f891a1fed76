import type { Face } from '@doodla/core';
import { createRoot } from 'react-dom/client';
import { watchWindowRoom } from '../ui/windowRoom';
import { speakWords, t } from '../words';
import type { Words } from '../words/textNames';
import { fromBase64 } from './base64';
import { PACK_ID, WORDS_ID } from './fileParts';
import { fontFiles } from './letters';
import { PackedPage } from './PackedPage';
import './standalone.css';

/** A page that plays an explanation by itself: all that it needs is in it. */
async function start(): Promise<void> {
  const brought = (id: string) => document.getElementById(id)!.textContent;
  speakWords(document.documentElement.lang, JSON.parse(brought(WORDS_ID)) as Words);
  watchWindowRoom();
  await addUsualLetters(fontFiles);
  const bytes = fromBase64(brought(PACK_ID).trim());
  createRoot(document.getElementById('root')!).render(<PackedPage bytes={bytes} />);
}

/** Those that every page of Doodla has; others come when they are needed. */
async function addUsualLetters({ andika }: Partial<Record<Face, string>>): Promise<void> {
  if (andika === undefined) return;
  document.fonts.add(await new FontFace('Andika', `url(${andika})`).load());
}

start().catch((error: unknown) => {
  console.error(error);
  document.getElementById('root')!.textContent = t('explain.packUnreadable');
});
