import { useEffect } from 'react';

const PRODUCT = 'Doodla';

/** Says in the title of the window where one is, most particular part first; parts that are not known yet are left out. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts, PRODUCT].filter(Boolean).join(' · ');
  useEffect(() => {
    document.title = title;
    return () => {
      document.title = PRODUCT;
    };
  }, [title]);
}
