import type { DataSource } from 'typeorm';

/** Whether a database is PostgreSQL; the other one is SQLite. */
export function isPostgres({ options }: Pick<DataSource, 'options'>): boolean {
  return options.type === 'postgres';
}

/** A statement with `?` as the database wants it: PostgreSQL numbers the places of values. */
export function numbered(source: Pick<DataSource, 'options'>, text: string): string {
  return isPostgres(source) ? withNumbers(text) : text;
}

/** `$1`, `$2` … in the place of each `?`; our statements have no `?` in texts or as operators. */
export function withNumbers(text: string): string {
  let n = 0;
  return text.replace(/\?/g, () => `$${(n += 1)}`);
}
