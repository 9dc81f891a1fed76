const message = (text) => ({ message: text });

/** What browsers themselves show of the companion, by language (`_locales`). */
export const LOCALES = {
  en: {
    name: message('Doodla companion'),
    description: message('Write on any web page, where it is, and bring it into class.'),
    button: message('Write on this page'),
    cannotWrite: message('The browser lets nobody write on this page. Open a page of the web and try again.'),
  },
  de: {
    name: message('Doodla-Begleiter'),
    description: message('Auf jede Webseite schreiben, da wo sie ist, und sie in den Unterricht holen.'),
    button: message('Auf diese Seite schreiben'),
    cannotWrite: message(
      'Auf diese Seite lässt der Browser niemanden schreiben. Öffne eine Seite aus dem Web.',
    ),
  },
};
