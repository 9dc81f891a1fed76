import type { Language } from '../words';
import { chooseLanguage, language, LANGUAGE_NAMES, t } from '../words';
import { classes } from './classes';

/** In which language everything here speaks; on paper or on the board. */
export function LanguageChoice({ onBoard = false }: { onBoard?: boolean }) {
  return (
    <label
      className={classes(
        'flex min-h-11 items-center gap-2 rounded-xl px-3',
        onBoard ? 'text-paper hover:bg-board-light' : 'hover:bg-paper-dim',
      )}
    >
      <span className="sr-only">{t('ui.language')}</span>
      <select
        value={language()}
        onChange={(event) => chooseLanguage(event.target.value as Language)}
        className="min-h-11 bg-transparent *:text-ink"
      >
        {Object.entries(LANGUAGE_NAMES).map(([tag, name]) => (
          <option key={tag} value={tag} lang={tag}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
