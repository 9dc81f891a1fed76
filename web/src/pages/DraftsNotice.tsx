import { TextCursorInput } from 'lucide-react';
import { useStore } from '../store/store';
import { Button } from '../ui/Button';
import type { TextDraft } from '../desk/textDrafts';
import type { Workspace } from '../workspace/workspace';
import { copyText } from '../secure/clipboard';

/** What was being typed and could not be put on its page: put it in, copy it, or drop it. */
export default function DraftsNotice({ workspace }: { workspace: Workspace }) {
  const left = useStore(workspace.drafts.left);
  useStore(workspace.pages);
  useStore(workspace.pageId);
  useStore(workspace.mode);
  const [draft] = left;
  if (!draft) return null;
  return (
    <Notice
      key={`${draft.edit.common.id} ${left.length}`}
      workspace={workspace}
      draft={draft}
      more={left.length - 1}
    />
  );
}

function Notice({ workspace, draft, more }: { workspace: Workspace; draft: TextDraft; more: number }) {
  const { drafts } = workspace;
  const own = draft.edit.common.page;
  const number = workspace.pages.get().findIndex(({ id }) => id === own) + 1;
  const shown = workspace.pageId.get();
  const copy = () =>
    void copyText(draft.text).then(
      () => workspace.onNotice('Copied.'),
      (error: Error) => workspace.onProblem(error.message),
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
      {!workspace.mayWrite && <p className="mb-3">It can be put in as soon as pens are up.</p>}
      <div className="flex flex-wrap gap-2">
        {number > 0 && (
          <Button look="main" disabled={!workspace.mayWrite} onClick={() => drafts.putIn(draft)}>
            Put it in
          </Button>
        )}
        {shown !== undefined && shown !== own && (
          <Button disabled={!workspace.mayWrite} onClick={() => drafts.putIn(draft, shown)}>
            Put it on this page
          </Button>
        )}
        <Button onClick={copy}>Copy</Button>
        <Button onClick={() => drafts.drop(draft)}>Drop it</Button>
      </div>
    </section>
  );
}
