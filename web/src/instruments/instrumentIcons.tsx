import type { InstrumentKind } from '@doodla/core/instruments';
import { DraftingCompass, Ruler, Triangle, TriangleRight } from 'lucide-react';
import type { ReactNode } from 'react';

/** Drawn here in the same weight: the set of icons has none. */
function Drawn({ path }: { path: string }) {
  return (
    <svg
      aria-hidden
      viewBox="0 0 24 24"
      width={24}
      height={24}
      fill="none"
      stroke="currentColor"
      strokeWidth={2}
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <path d={path} />
    </svg>
  );
}

export const INSTRUMENT_ICONS: Readonly<Record<InstrumentKind, ReactNode>> = {
  ruler: <Ruler aria-hidden />,
  square45: <Triangle aria-hidden />,
  square30: <TriangleRight aria-hidden />,
  protractor: (
    <Drawn path="M2.5 17a9.5 9.5 0 0 1 19 0zM12 17v-4M12 7.5v2M6.5 10.5l1.3 1.3M17.5 10.5l-1.3 1.3" />
  ),
  compasses: <DraftingCompass aria-hidden />,
  dividers: <Drawn path="M12 3v3M12 6a2 2 0 1 1 0 4 2 2 0 1 1 0-4M11 10 6 21M13 10l5 11" />,
};
