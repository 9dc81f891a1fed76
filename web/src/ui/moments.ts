import { lazy } from 'react';
import type { FunctionComponent, LazyExoticComponent } from 'react';

/** Something that happens once. */
export class Moment {
  readonly passed: Promise<void>;
  readonly come: () => void;

  constructor() {
    let come = () => undefined as void;
    this.passed = new Promise((resolve) => (come = resolve));
    this.come = come;
  }
}

/** The first page shows. What it does not need waits for that, so that a slow line brings first what comes first. */
export const pageShows = new Moment();
/** The tools are here as well. */
export const toolsHere = new Moment();

/** So long the page has the line to itself, and then the tools, milliseconds. */
const PATIENCE_MS = 4000;

/** Lets the moments come by themselves, should a page or its tools fail or take too long. */
export function limitWaiting(): void {
  setTimeout(pageShows.come, PATIENCE_MS);
  void pageShows.passed.then(() => setTimeout(toolsHere.come, PATIENCE_MS));
}

/** For whoever prepares on a line of their own: nothing waits for anything. */
export function waitForNothing(): void {
  pageShows.come();
  toolsHere.come();
}

/** Between two tries to fetch something while there may be no connection, milliseconds. */
const AGAIN_MS = 2000;

/** Fetches a part of the program; without a connection again and again, since what waits for it can wait. */
export async function patiently<T>(load: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await load();
    } catch {
      // Told by the sign of the connection.
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    }
  }
}

/** A part that is fetched when the moment has come. */
export function lazyAfter<Props>(
  { passed }: Moment,
  load: () => Promise<{ default: FunctionComponent<Props> }>,
): LazyExoticComponent<FunctionComponent<Props>> {
  return lazy(() => passed.then(() => patiently(load)));
}
