import type { ReactNode } from 'react';
import { useTitle } from './useTitle';
import { t } from '../words';
import { LanguageChoice } from './LanguageChoice';

/** The green board with one sheet of paper on it: sign-in, set-up and joining. */
export function Front({ title, children }: { title: string; children: ReactNode }) {
  useTitle(title);
  return (
    <main className="grid min-h-full place-items-center bg-board p-4">
      <div className="w-full max-w-md">
        <Wordmark />
        <section className="rounded-2xl bg-paper p-6 shadow-2xl sm:p-8">
          <h1 className="mb-5 text-2xl font-bold">{title}</h1>
          {children}
        </section>
        <div className="mt-3 flex justify-center">
          <LanguageChoice onBoard />
        </div>
      </div>
    </main>
  );
}

export function Wordmark() {
  return (
    <div className="mb-5 flex items-center justify-center gap-3 text-4xl font-bold text-paper">
      <img src="/icon.svg" alt="" className="size-12 rounded-xl border-2 border-board-line" />
      {t('common.doodla')}
    </div>
  );
}
