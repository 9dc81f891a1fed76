/** Port that the tests use. */
export const PORT: number;
/** The folder of PostgreSQL's programs; undefined where it is not installed. */
export const PROGRAMS: string | undefined;

/** Starts PostgreSQL on a port of the loopback. Returns what stops it. */
export function startPostgres(
  port: number,
  options?: readonly string[],
): (() => void) & {
  /** Ends every connection, as an update of PostgreSQL does. */
  restart(): void;
};

export default function setup(): () => void;
