import { DropdownMenu } from 'radix-ui';
import type { WritingOffer } from '../desk/shapeOffer';
import { takeWord } from '../desk/typeWriting';
import type { PageDesk } from '../room/pageDesk';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';

/** The words that were just typed out; each opens what else it may be. */
export function TypedWords({ offer, desk }: { offer: WritingOffer; desk: PageDesk }) {
  return (
    <div className="flex max-h-28 max-w-2xl flex-col overflow-auto">
      {offer.lines.map((line, l) => (
        <div key={line.mark} className="flex flex-wrap">
          {line.words.map((readings, w) => (
            <DropdownMenu.Root key={w}>
              <DropdownMenu.Trigger
                aria-label={t('writing.word', { word: line.text[w] ?? '' })}
                disabled={readings.length < 2}
                className="min-h-11 rounded-xl px-2.5 font-bold hover:bg-board-light disabled:opacity-60"
              >
                {line.text[w]}
              </DropdownMenu.Trigger>
              <MenuContent>
                {readings.map((reading) => (
                  <DropdownMenu.Item
                    key={reading}
                    className={MENU_ITEM}
                    onSelect={() => takeWord(desk, offer, l, w, reading)}
                  >
                    {reading}
                  </DropdownMenu.Item>
                ))}
              </MenuContent>
            </DropdownMenu.Root>
          ))}
        </div>
      ))}
    </div>
  );
}
