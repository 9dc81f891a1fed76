import type { SnippetPart } from '@doodla/core';
import type { Database } from './database.js';
import type { FoundRow, FoundWords } from './wordIndex.js';
import { FOUND, FOUND_FROM, SNIPPET_WORDS, WEIGHTS, WordIndex } from './wordIndex.js';

/** Signs round what was found, and letters that no text has. */
const [FROM, TO] = ['\u0002', '\u0003'];

/** Words in an index of SQLite's (FTS5), which knows letters with and without accents as the same. */
export class SqliteWordIndex extends WordIndex {
  constructor(private readonly database: Database) {
    super();
  }

  async put(key: number, { title, typed, printed, notes }: FoundWords): Promise<void> {
    await this.database.together(
      ['DELETE FROM found_words WHERE rowid = ?', [key]],
      [
        'INSERT INTO found_words (rowid, title, typed, printed, notes) VALUES (?, ?, ?, ?, ?)',
        [key, title, typed, printed, notes],
      ],
    );
  }

  async find(teacherId: string, words: readonly string[], most: number): Promise<FoundRow[]> {
    const { title, typed, printed, notes } = WEIGHTS;
    const rows = await this.database.all<Omit<FoundRow, 'snippet'> & { snippet: string }>(
      `SELECT ${FOUND}, snippet(found_words, -1, '${FROM}', '${TO}', '…', ${SNIPPET_WORDS}) AS snippet
       FROM ${FOUND_FROM}
       WHERE found_words MATCH ? AND lesson.teacher_id = ? AND lesson.deleted_at IS NULL AND sitting.dropped_at IS NULL
       ORDER BY bm25(found_words, ${title}, ${typed}, ${printed}, ${notes}) LIMIT ?`,
      // Quoted, so that nothing of it is taken for an operator (SQLite FTS5, §3).
      [words.map((word) => `"${word}"*`).join(' '), teacherId, most],
    );
    return rows.map((row) => ({ ...row, snippet: partsOf(row.snippet) }));
  }
}

function partsOf(snippet: string): SnippetPart[] {
  return snippet
    .split(FROM)
    .flatMap((part, i): SnippetPart[] => {
      if (i === 0) return [{ words: part, hit: false }];
      const [hit = '', after = ''] = part.split(TO);
      return [
        { words: hit, hit: true },
        { words: after, hit: false },
      ];
    })
    .filter(({ words }) => words !== '');
}
