import type { IdeaRules } from '@doodla/core';
import { MOST_VOTES } from '@doodla/core';
import { FilePlus2, Plus, SlidersHorizontal, X } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { FormEvent } from 'react';
import { useMemo } from 'react';
import { IdeaActions } from '../room/ideaActions';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';
import { MOST_LETTERS } from './mostLetters';

/** Adding ideas to the shown page, and how they are collected, where they are. */
export default function IdeasBar({ desk }: { desk: PageDesk }) {
  const page = useStore(desk.pageId);
  const state = useStore(desk.room.classroom!.state);
  const rules = page === undefined ? undefined : state?.ideas[page];
  if (page === undefined || !rules || state?.ended) return null;
  return <Bar desk={desk} page={page} rules={rules} />;
}

function Bar({ desk, page, rules }: { desk: PageDesk; page: string; rules: IdeaRules }) {
  const { room } = desk;
  const actions = useMemo(() => new IdeaActions(desk), [desk]);
  const { mine, counts } = useStore(room.votes!.on(page));
  const mayAdd = room.mayWrite && (room.isTeacher || rules.adding);
  const add = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const words = (new FormData(form).get('idea') as string).trim();
    if (words !== '' && actions.add(words)) form.reset();
  };
  const left = rules.votes - mine.length;
  return (
    <div
      role="group"
      aria-label={t('ideas.ideas')}
      data-bar="ideas"
      className="pointer-events-auto absolute bottom-17 group-has-[[data-bar=explaining]]/view:bottom-40 left-1/2 z-20 flex w-max group-has-[[data-bar=talk][data-side=left]]/view:left-[calc(50%+11.5rem)] group-has-[[data-bar=talk][data-side=right]]/view:left-[calc(50%-11.5rem)] max-w-[calc(100%-1rem)] -translate-x-1/2 flex-wrap items-center justify-center gap-2 rounded-2xl bg-board p-1 text-paper shadow-xl compact:bottom-28 forced-colors:border-2"
    >
      {mayAdd && (
        <form onSubmit={add} className="flex min-w-0 items-center gap-1">
          <input
            name="idea"
            aria-label={t('ideas.yourIdea')}
            placeholder={t('ideas.yourIdea')}
            maxLength={MOST_LETTERS}
            autoComplete="off"
            className="min-h-11 w-72 group-has-[[data-bar=talk]]/view:w-44 min-w-0 rounded-xl bg-white px-3 text-lg text-ink compact:w-52"
          />
          <Button look="onBoard" type="submit" icon={<Plus aria-hidden size={18} />}>
            {t('ideas.add')}
          </Button>
        </form>
      )}
      {!room.isTeacher && rules.votes > 0 && (
        <span role="status" className="px-3 font-bold">
          {t('ideas.votesLeft', { count: Math.max(0, left) })}
        </span>
      )}
      {room.isTeacher && (
        <>
          <Settings rules={rules} actions={actions} />
          <IconButton
            label={t('ideas.makePage')}
            icon={<FilePlus2 aria-hidden size={20} />}
            onClick={() => actions.makePage(counts ?? {})}
          />
          <IconButton
            label={t('ideas.stopCollecting')}
            icon={<X aria-hidden size={20} />}
            onClick={() => actions.setRules(null)}
          />
        </>
      )}
    </div>
  );
}

const SWITCHES = {
  adding: 'ideas.everybodyAdds',
  grouping: 'ideas.studentsGroup',
  counted: 'ideas.allSeeVotes',
  sorted: 'ideas.mostVotesFirst',
} as const satisfies Partial<Record<keyof IdeaRules, string>>;

const VOTES = [0, 1, 3, 5, MOST_VOTES];

/** How ideas are collected. */
function Settings({ rules, actions }: { rules: IdeaRules; actions: IdeaActions }) {
  const keepOpen = (event: Event) => event.preventDefault();
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button look="onBoard" icon={<SlidersHorizontal aria-hidden size={18} />}>
          {rules.votes > 0 ? t('ideas.votesEach', { count: rules.votes }) : t('ideas.how')}
        </Button>
      </DropdownMenu.Trigger>
      <MenuContent align="center" side="top">
        {(Object.keys(SWITCHES) as (keyof typeof SWITCHES)[]).map((key) => (
          <DropdownMenu.CheckboxItem
            key={key}
            className={MENU_ITEM}
            checked={rules[key]}
            onCheckedChange={(on) => actions.setRules({ [key]: on })}
            onSelect={keepOpen}
          >
            <Mark />
            {t(SWITCHES[key])}
          </DropdownMenu.CheckboxItem>
        ))}
        <DropdownMenu.Separator className="my-1 border-t border-paper-line" />
        <DropdownMenu.RadioGroup
          value={String(rules.votes)}
          onValueChange={(votes) => actions.setRules({ votes: Number(votes) })}
        >
          {VOTES.map((votes) => (
            <DropdownMenu.RadioItem
              key={votes}
              value={String(votes)}
              className={MENU_ITEM}
              onSelect={keepOpen}
            >
              <Mark />
              {votes === 0 ? t('ideas.noVoting') : t('ideas.votesEach', { count: votes })}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </MenuContent>
    </DropdownMenu.Root>
  );
}

function Mark() {
  return (
    <span aria-hidden className="w-4">
      <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
    </span>
  );
}
