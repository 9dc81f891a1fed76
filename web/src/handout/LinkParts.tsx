import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Copy, Trash2 } from 'lucide-react';
import { toast } from 'sonner';
import { linksQuery, removeLink } from '../api/links';
import { copyText } from '../secure/clipboard';
import { Button } from '../ui/Button';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { dayOf } from '../words/dates';
import type { LinkChoice } from './shareLink';

interface LinkPartsProps {
  lesson: string;
  link: LinkChoice;
  /** What others may do with what it shows. */
  mayBeSaved?: string;
  change(set: Partial<LinkChoice>): void;
}

/** What a link asks for and until when it shows something, and the links that there are. */
export function LinkParts({
  lesson,
  link,
  mayBeSaved = t('handout.linkMayBeSaved'),
  change,
}: LinkPartsProps) {
  return (
    <>
      <TextField
        label={t('handout.linkPassword')}
        value={link.password}
        maxLength={100}
        autoComplete="off"
        onChange={(event) => change({ password: event.target.value })}
      />
      <TextField
        label={t('handout.linkEnds')}
        type="date"
        value={link.until}
        onChange={(event) => change({ until: event.target.value })}
      />
      <Tick checked={link.mayDownload} onChange={(mayDownload) => change({ mayDownload })}>
        {mayBeSaved}
      </Tick>
      <Links lesson={lesson} />
    </>
  );
}

/** The links to a lesson, to be given on or taken back. */
export function Links({ lesson }: { lesson: string }) {
  const { data: links = [] } = useQuery(linksQuery(lesson));
  const client = useQueryClient();
  if (links.length === 0) return null;
  const takeBack = (id: string) => {
    removeLink(id)
      .then(() => client.invalidateQueries({ queryKey: linksQuery(lesson).queryKey }))
      .catch((error: Error) => toast.error(error.message));
  };
  return (
    <section className="mb-4">
      <h3 className="mb-1 font-bold">{t('handout.links')}</h3>
      <ul className="max-h-52 overflow-auto rounded-xl bg-paper-dim p-2">
        {links.map(({ id, title, url, hasPassword, endsAt, createdAt }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-2">
            <span className="grow">
              {title}, {dayOf(createdAt)}
              {hasPassword && `, ${t('handout.withPassword')}`}
              {endsAt !== null && `, ${t('handout.untilDay', { day: dayOf(endsAt) })}`}
            </span>
            <Button icon={<Copy aria-hidden size={18} />} onClick={() => copyLink(url)}>
              {t('common.copy')}
            </Button>
            <Button icon={<Trash2 aria-hidden size={18} />} onClick={() => takeBack(id)}>
              {t('handout.takeBack')}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A link that was made, to be given to others. */
export function SharedLink({ url }: { url: string }) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="grow *:mb-0">
        <TextField
          label={t('handout.theLink')}
          value={url}
          readOnly
          onFocus={(event) => event.target.select()}
        />
      </div>
      <Button look="main" onClick={() => copyLink(url)}>
        {t('common.copy')}
      </Button>
    </div>
  );
}

/** Puts a link where it can be pasted from, and says so. */
function copyLink(url: string): void {
  copyText(url).then(
    () => toast(t('handout.linkIsCopied')),
    (error: Error) => toast.error(error.message),
  );
}
