import type { ReactNode } from 'react';

/** What went wrong, in a sentence; nothing while nothing did. */
export function Problem({ children }: { children: ReactNode }) {
  if (!children) return null;
  return (
    <p role="alert" className="mb-4 font-bold whitespace-pre-line text-alarm">
      {children}
    </p>
  );
}
