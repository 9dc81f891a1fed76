// Timers, clock and console: what browsers and Node have alike, and all that a client needs of either.
declare function setTimeout(run: () => void, milliseconds: number): unknown;
declare const performance: { now(): number; mark(name: string): void };
declare const console: { error(...what: unknown[]): void };
