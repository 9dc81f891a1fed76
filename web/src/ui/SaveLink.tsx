import { Download } from 'lucide-react';
import { t } from '../words';

/** A link that saves a file that was made, on paper; it has the focus, since the button that made the file is gone. */
export function SaveLink({ url, name }: { url: string; name: string }) {
  return (
    <a
      ref={(link) => link?.focus()}
      href={url}
      download={name}
      className="inline-flex min-h-11 items-center gap-2 rounded-xl border-2 border-board bg-board px-4 font-bold text-paper"
    >
      <Download aria-hidden size={18} /> {t('handout.saveFile', { name })}
    </a>
  );
}
