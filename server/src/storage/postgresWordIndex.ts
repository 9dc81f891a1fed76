import { searchable } from '@doodla/core';
import type { Database } from './database.js';
import { snippetOf } from './snippet.js';
import type { FoundRow, FoundWords } from './wordIndex.js';
import { FOUND, FOUND_FROM, WEIGHTS, WordIndex } from './wordIndex.js';

/** Letters of PostgreSQL for how much a lexeme counts (documentation, 12.3.1), the heaviest first. */
const BY_WEIGHT = (Object.keys(WEIGHTS) as (keyof FoundWords)[]).sort((a, b) => WEIGHTS[b] - WEIGHTS[a]);
const LETTERS = ['A', 'B', 'C', 'D'];
/** As `ts_rank` wants them: D, C, B, A, at most 1. */
const RANKS = [...BY_WEIGHT]
  .reverse()
  .map((name) => WEIGHTS[name] / WEIGHTS[BY_WEIGHT[0]!])
  .join(', ');

/** Words in an index of PostgreSQL's (`tsvector`). They are made plain here, so that accents and capitals do not count. */
export class PostgresWordIndex extends WordIndex {
  constructor(private readonly database: Database) {
    super();
  }

  async put(key: number, words: FoundWords): Promise<void> {
    const vectors = BY_WEIGHT.map((_, i) => `setweight(to_tsvector('simple', ?), '${LETTERS[i]}')`);
    await this.database.together([
      `INSERT INTO found_words (rowid, title, typed, printed, notes, words) VALUES (?, ?, ?, ?, ?, ${vectors.join(' || ')})
       ON CONFLICT (rowid) DO UPDATE SET title = excluded.title, typed = excluded.typed, printed = excluded.printed,
         notes = excluded.notes, words = excluded.words`,
      [
        key,
        ...[words.title, words.typed, words.printed, words.notes].map(withoutNul),
        ...BY_WEIGHT.map((name) => searchable(words[name]).join(' ')),
      ],
    ]);
  }

  async find(teacherId: string, words: readonly string[], most: number): Promise<FoundRow[]> {
    const rows = await this.database.all<Omit<FoundRow, 'snippet'> & FoundWords>(
      `SELECT ${FOUND}, found_words.title, typed, printed, notes
       FROM ${FOUND_FROM}, to_tsquery('simple', ?) AS question
       WHERE found_words.words @@ question AND lesson.teacher_id = ? AND lesson.deleted_at IS NULL
         AND sitting.dropped_at IS NULL
       ORDER BY ts_rank('{${RANKS}}', found_words.words, question) DESC, found_words.rowid LIMIT ?`,
      // Words have nothing but letters and digits; quoted all the same.
      [words.map((word) => `'${word}':*`).join(' & '), teacherId, most],
    );
    return rows.map(({ title, typed, printed, notes, ...row }) => ({
      ...row,
      snippet: snippetOf([title, typed, notes, printed], words),
    }));
  }
}

/** PostgreSQL takes every sign in a text but this one. */
const withoutNul = (text: string): string => text.replaceAll('\0', '');
