import { say } from '../../words';
import type { Tab } from '../tab';

/** Wipes all marks off the page; undo brings them back. */
export function WipeSheet({ tab: { log, desk }, onDone }: { tab: Tab; onDone(): void }) {
  const wipe = () => {
    const ids = log.all().map(({ glued }) => glued.mark.id);
    log.perform(ids.map((mark) => ({ do: 'remove', mark })));
    desk.selection.clear();
    if (ids.length > 0) desk.problem.set(say('wiped', { count: ids.length }));
    onDone();
  };
  return (
    <>
      <p>{say('wipeAll')}</p>
      <button type="button" className="min-h-11 rounded-xl bg-paper px-3 font-bold text-board" onClick={wipe}>
        {say('wipeNow')}
      </button>
    </>
  );
}
