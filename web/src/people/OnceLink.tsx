import { toast } from 'sonner';
import { copyText } from '../secure/clipboard';
import { Button } from '../ui/Button';
import { TextField } from '../ui/TextField';
import { t } from '../words';

/** A link that is good once, to be given to somebody. */
export function OnceLink({ for: name, url }: { for: string; url: string }) {
  const copy = () => {
    copyText(url).then(
      () => toast(t('school.linkIsCopied')),
      (error: Error) => toast.error(error.message),
    );
  };
  return (
    <div role="status" className="mt-4 rounded-xl border-2 border-board p-4">
      <p className="mb-2">{t('school.giveThisLink', { name })}</p>
      <div className="flex flex-wrap items-end gap-3">
        <div className="grow *:mb-0">
          <TextField
            label={t('school.link')}
            value={url}
            readOnly
            onFocus={(event) => event.target.select()}
          />
        </div>
        <Button look="main" onClick={copy}>
          {t('common.copy')}
        </Button>
      </div>
    </div>
  );
}
