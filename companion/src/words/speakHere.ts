import { bringWords } from './spoken';

/** Brings the words of the browser's language to a page of the extension's own, before all that speaks is loaded. */
export async function speakHere(): Promise<void> {
  if (chrome.i18n.getUILanguage().startsWith('de')) {
    const [{ de }, { own }] = await Promise.all([import('@web/words/de'), import('./own.de')]);
    bringWords('de', de, own);
  } else {
    const [{ en }, { own }] = await Promise.all([import('@web/words/en'), import('./own.en')]);
    bringWords('en', en, own);
  }
  document.documentElement.lang = chrome.i18n.getUILanguage();
}
