import type { Page } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';

/** A page in the strip, and its number from 1. */
export interface NumberedPage {
  page: Page;
  number: number;
  desk: PageDesk;
}
