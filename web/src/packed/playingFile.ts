import type { Face } from '@doodla/core';
import { facesOn, marksIn, playingPage } from '@doodla/core/explain';
import { fontFiles } from '../canvas/fontFiles';
import { spokenWords, t } from '../words';
import { toBase64 } from './base64';
import { LETTERS_ID, PACK_ID, WORDS_ID } from './fileParts';
import { readPack } from './packFiles';

/** Where the player lies that such a page brings with it. */
const PLAYER = { script: '/player/player.js', style: '/player/player.css' } as const;
/** What the player has words from. */
const SECTIONS = ['common', 'explain', 'replay', 'shared'] as const;

/**
 * A page that plays a packed explanation by itself, without a connection: one HTML file. Throws an error with a sentence where it
 * cannot be made.
 */
export async function playingFile(pack: Blob): Promise<Blob> {
  const { explanation } = readPack(new Uint8Array(await pack.arrayBuffer()));
  const letters: Partial<Record<Face, string>> = {};
  for (const face of await facesOn({ marks: [...marksIn(explanation).values()].flat() }))
    letters[face] = `data:font/ttf;base64,${await toBase64(await fetched(fontFiles[face]))}`;
  const html = playingPage({
    title: explanation.title,
    language: explanation.language,
    script: await (await fetched(PLAYER.script)).text(),
    style: await (await fetched(PLAYER.style)).text(),
    brought: {
      [PACK_ID]: await toBase64(pack),
      [LETTERS_ID]: JSON.stringify(letters),
      [WORDS_ID]: JSON.stringify(spokenWords(SECTIONS)),
    },
  });
  return new Blob([html], { type: 'text/html' });
}

async function fetched(address: string): Promise<Blob> {
  // Without an answer it is told as one that is no good.
  const response = await fetch(address).catch(() => undefined);
  if (!response?.ok) throw new Error(t('explain.notMade'));
  return response.blob();
}
