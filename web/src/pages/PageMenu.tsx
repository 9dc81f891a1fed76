import { Ellipsis } from 'lucide-react';
import { EntryMenu } from '../ui/EntryMenu';
import type { NumberedPage } from './numberedPage';
import { PAGE_ENTRIES } from './pageEntries';
import { t } from '../words';

/** The menu of one page. */
export function PageMenu(props: NumberedPage) {
  return (
    <EntryMenu
      entries={PAGE_ENTRIES}
      props={props}
      trigger={
        <button
          type="button"
          aria-label={t('pages.whatToDoWithPage', { number: props.number })}
          className="grid size-11 place-items-center rounded-xl text-paper hover:bg-board-light"
        >
          <Ellipsis aria-hidden size={20} />
        </button>
      }
    />
  );
}
