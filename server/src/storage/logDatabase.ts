/** A statement with the values of its `?`, in order. */
export type Statement = readonly [text: string, values: readonly unknown[]];

/** What databases say in different ways. */
export interface Dialect {
  /** Where a text stands in another one, from 1; 0 where it does not. */
  instr: string;
  /** Which index a table is to be read by, where the database lets itself be told. */
  by(index: string): string;
}

/** The database as the logs use it, apart from all that else is done in it. */
export abstract class LogDatabase {
  abstract readonly dialect: Dialect;

  /** Whether something could be written now. */
  abstract isWritable(): Promise<boolean>;

  /** The rows that a query finds. */
  abstract all<Row>(text: string, ...values: unknown[]): Promise<Row[]>;

  /**
   * Does all of these or none; what is done is on the disk when this resolves. `first` comes before the others and has to find or
   * make its row, else none is done. Rejects with TakenError where something is there already that can be there only once, with
   * FencedError where `first` has no row.
   */
  abstract write(statements: readonly Statement[], first?: Statement): Promise<void>;
}

/** Another process has the log in hand by now: what this one believes of it is out of date. */
export class FencedError extends Error {
  override name = 'FencedError';
}

/** Something is there already: memory and database do not agree. */
export class TakenError extends Error {
  override name = 'TakenError';
}
