import { useQuery } from '@tanstack/react-query';
import { useStore } from '../store/useStore';
import { request } from '../api/http';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** What the speaker wrote beside the shown slide; only the teacher sees it. */
export default function NotesPanel({ desk }: { desk: PageDesk }) {
  useStore(desk.pageId);
  useStore(desk.pages);
  const surface = desk.page?.surface;
  const material = surface?.kind === 'pdf' ? surface.material : undefined;
  const { data } = useQuery({
    queryKey: ['notes', material],
    queryFn: () => request<{ notes: string[] }>('GET', `/api/materials/${material!}/notes`),
    enabled: material !== undefined,
    staleTime: Infinity,
  });
  const note = surface?.kind === 'pdf' ? data?.notes[surface.index] : undefined;
  if (!note) return null;
  return (
    <details className="absolute bottom-2 left-1/2 z-20 max-w-xs -translate-x-1/2 rounded-2xl bg-board forced-colors:border-2 p-2 text-paper shadow-xl">
      <summary className="min-h-9 cursor-pointer px-2 py-1 font-bold">{t('pages.notesToThisSlide')}</summary>
      <p className="max-h-40 overflow-auto px-2 whitespace-pre-line">{note}</p>
    </details>
  );
}
