import type { ClassState, Person } from '@doodla/core';
import { isSameName } from '@doodla/core';
import { Hand, Users } from 'lucide-react';
import { Popover } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { clearClass } from '../api/lessons';
import { HandsSection } from '../asking/HandsSection';
import { useReactions } from '../asking/useReactions';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { t } from '../words';
import { NameTag } from '../ui/NameTag';
import { PersonRow } from './PersonRow';
import type { Writing } from './presence';
import { presenceOf, useAuthors, useWriting } from './presence';
import { RulesSection } from './RulesSection';
import { ShownSection } from './ShownSection';

const RemovalsDialog = lazy(() => import('./RemovalsDialog'));

interface PeopleMenuProps {
  desk: PageDesk;
  state: ClassState | undefined;
  isOpen: boolean;
}

/** Who is in the class, what each is doing, and what they may. */
export function PeopleMenu({ desk, state, isOpen }: PeopleMenuProps) {
  const [removals, setRemovals] = useState(false);
  const writing = useWriting(desk.room);
  useReactions(desk.room);
  const hands = isOpen ? (state?.hands.length ?? 0) : 0;
  const people = state?.people ?? [];
  const here = people.filter((person) => person.here).length;
  const count = isOpen ? here : people.length;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button
          look="onBoard"
          icon={<Users aria-hidden size={18} />}
          aria-label={
            hands > 0 ? t('roster.studentsAndHands', { count, hands }) : t('classroom.students2', { count })
          }
        >
          <span className="hidden compact:inline">{t('classroom.students')}</span>
          {count}
          {hands > 0 && (
            <>
              <Hand aria-hidden size={18} /> {hands}
            </>
          )}
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('classroom.students')}
          align="end"
          sideOffset={8}
          collisionPadding={8}
          className="z-40 max-h-[min(80dvh,var(--radix-popover-content-available-height))] w-96 max-w-[calc(100vw-1rem)] overflow-auto rounded-2xl bg-paper p-3 shadow-xl forced-colors:border-2"
        >
          {state && isOpen ? (
            <>
              <ShownSection room={desk.room} />
              <details className="mb-1">
                <summary className="min-h-11 cursor-pointer py-2 font-bold">
                  {t('roster.whatStudentsMay')}
                </summary>
                <RulesSection room={desk.room} />
              </details>
              <HandsSection room={desk.room} state={state} />
              <Missing state={state} />
              <People desk={desk} state={state} writing={writing} />
            </>
          ) : (
            <ul>
              {people.map((person) => (
                <EndedRow key={person.id} person={person} />
              ))}
            </ul>
          )}
          <Button className="mt-2 w-full" onClick={() => setRemovals(true)}>
            {t('roster.whatWasRemoved')}
          </Button>
        </Popover.Content>
      </Popover.Portal>
      {removals && (
        <Suspense>
          <RemovalsDialog desk={desk} onClose={() => setRemovals(false)} />
        </Suspense>
      )}
    </Popover.Root>
  );
}

interface PeopleProps {
  desk: PageDesk;
  state: ClassState;
  writing: Writing | undefined;
}

function People({ desk, state, writing }: PeopleProps) {
  const { room } = desk;
  const authors = useAuthors(writing);
  const { people, presenters } = state;
  const clear = () => void clearClass(room.sitting!).catch((error: Error) => room.tellProblem(error.message));
  if (people.length === 0) return <p className="mb-2">{t('classroom.nobodyHasJoinedYet')}</p>;
  return (
    <>
      <ul>
        {people.map((person) => (
          <PersonRow
            key={person.id}
            desk={desk}
            person={person}
            presence={presenceOf(person, authors)}
            presents={presenters.includes(person.id)}
          />
        ))}
      </ul>
      {people.some(({ here }) => !here) && (
        <Button className="w-full" onClick={clear}>
          {t('classroom.takeOutAllWhoAre')}
        </Button>
      )}
    </>
  );
}

/** Who is on the group's list and has not come. */
function Missing({ state: { group, people } }: { state: ClassState }) {
  const missing = (group?.names ?? []).filter(
    (name) => !people.some((person) => isSameName(person.name, name)),
  );
  if (!group || group.names.length === 0) return null;
  return (
    <p className="mb-1 rounded-xl bg-paper-dim px-3 py-2">
      {missing.length === 0
        ? t('roster.allHaveCome', { group: group.title })
        : t('roster.missing', { count: missing.length, names: missing.join(', ') })}
    </p>
  );
}

function EndedRow({ person }: { person: Person }) {
  return (
    <li className="flex min-h-12 items-center gap-3">
      <NameTag {...person} />
      <span className="truncate">{person.name}</span>
    </li>
  );
}
