import { TextCursorInput } from 'lucide-react';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import type { TextDraft } from '../desk/textDrafts';
import type { PageDesk } from '../room/pageDesk';
import { copyText } from '../secure/clipboard';

/** What was being typed and could not be put on its page: put it in, copy it, or drop it. */
export default function DraftsNotice({ desk }: { desk: PageDesk }) {
  const left = useStore(desk.room.drafts.left);
  useStore(desk.pages);
  useStore(desk.pageId);
  useStore(desk.room.mode);
  const [draft] = left;
  if (!draft) return null;
  return (
    <Notice key={`${draft.edit.common.id} ${left.length}`} desk={desk} draft={draft} more={left.length - 1} />
  );
}

function Notice({ desk, draft, more }: { desk: PageDesk; draft: TextDraft; more: number }) {
  const { drafts } = desk.room;
  const own = draft.edit.common.page;
  const number = desk.pages.get().findIndex(({ id }) => id === own) + 1;
  const shown = desk.pageId.get();
  const copy = () =>
    void copyText(draft.text).then(
      () => desk.room.tellNotice('Copied.'),
      (error: Error) => desk.tellProblem(error.message),
    );
  return (
    <section
      aria-label="Text that was not put on a page"
      className="absolute bottom-20 left-1/2 z-30 w-96 max-w-[calc(100vw-1rem)] -translate-x-1/2 rounded-2xl bg-paper p-4 shadow-xl"
    >
      <p role="status" className="mb-2 flex items-center gap-2 font-bold">
        <TextCursorInput aria-hidden size={18} className="shrink-0" />
        {number > 0 ? `You were typing on page ${number}.` : 'The page that you were typing on is gone.'}
        {more > 0 && ` And ${more} more.`}
      </p>
      <p className="mb-3 line-clamp-4 rounded-xl bg-paper-dim px-3 py-2 whitespace-pre-wrap">{draft.text}</p>
      {!desk.mayWrite && <p className="mb-3">It can be put in as soon as pens are up.</p>}
      <div className="flex flex-wrap gap-2">
        {number > 0 && (
          <Button look="main" disabled={!desk.mayWrite} onClick={() => drafts.putIn(draft)}>
            Put it in
          </Button>
        )}
        {shown !== undefined && shown !== own && (
          <Button disabled={!desk.mayWrite} onClick={() => drafts.putIn(draft, shown)}>
            Put it on this page
          </Button>
        )}
        <Button onClick={copy}>Copy</Button>
        <Button onClick={() => drafts.drop(draft)}>Drop it</Button>
      </div>
    </section>
  );
}
