import type { Mark, Page } from '@doodla/core';
import type { Copy } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { copyName } from './copyNames';
import { Miniature, useGround } from './Miniature';

/** Width of a copy, device pixels. */
const WIDTH = 1200;

interface BesideCopiesProps {
  desk: PageDesk;
  page: Page;
  copies: readonly Copy[];
  /** What all of them have. */
  common: readonly Mark[];
}

/** Two to four copies side by side, as large as there is room; they keep up with what is written. */
export function BesideCopies({ desk, page, copies, common }: BesideCopiesProps) {
  const ground = useGround(desk, page, { copies, common }, WIDTH);
  return (
    <ul className="grid min-h-0 grow grid-cols-2 gap-3 overflow-auto compact:grid-cols-1">
      {copies.map((copy) => (
        <li key={copy.space} aria-label={copyName(copy)} className="flex flex-col gap-1">
          <span className="font-bold">{copyName(copy)}</span>
          <Miniature desk={desk} page={page} copy={copy} ground={ground} />
        </li>
      ))}
    </ul>
  );
}
