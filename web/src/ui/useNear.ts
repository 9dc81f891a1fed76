import { useEffect, useState } from 'react';

/** Whether an element is in sight or nearly so. */
export function useNear(element: React.RefObject<HTMLElement | null>): boolean {
  const [near, setNear] = useState(false);
  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => setNear(entry!.isIntersecting), {
      rootMargin: '300px',
    });
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return near;
}
