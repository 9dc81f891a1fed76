import { TextCursorInput } from 'lucide-react';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import type { TextDraft } from '../desk/textDrafts';
import type { PageDesk } from '../room/pageDesk';
import { copyText } from '../secure/clipboard';
import { t } from '../words';

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
      () => desk.room.tellNotice(t('pages.copied')),
      (error: Error) => desk.tellProblem(error.message),
    );
  return (
    <section
      aria-label={t('pages.textThatWasNotPut')}
      className="absolute bottom-20 left-1/2 z-30 w-96 max-w-[calc(100vw-1rem)] -translate-x-1/2 rounded-2xl bg-paper p-4 shadow-xl"
    >
      <p role="status" className="mb-2 flex items-center gap-2 font-bold">
        <TextCursorInput aria-hidden size={18} className="shrink-0" />
        {number > 0 ? t('pages.youWereTypingOnPage', { number }) : t('pages.thePageThatYouWere')}
        {more > 0 && t('pages.andMore', { more })}
      </p>
      <p className="mb-3 line-clamp-4 rounded-xl bg-paper-dim px-3 py-2 whitespace-pre-wrap">{draft.text}</p>
      {!desk.mayWrite && <p className="mb-3">{t('pages.itCanBePutIn')}</p>}
      <div className="flex flex-wrap gap-2">
        {number > 0 && (
          <Button look="main" disabled={!desk.mayWrite} onClick={() => drafts.putIn(draft)}>
            {t('pages.putItIn')}
          </Button>
        )}
        {shown !== undefined && shown !== own && (
          <Button disabled={!desk.mayWrite} onClick={() => drafts.putIn(draft, shown)}>
            {t('pages.putItOnThisPage')}
          </Button>
        )}
        <Button onClick={copy}>{t('common.copy')}</Button>
        <Button onClick={() => drafts.drop(draft)}>{t('pages.dropIt')}</Button>
      </div>
    </section>
  );
}
