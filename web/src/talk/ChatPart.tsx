import type { ChatMessage } from '@doodla/core';
import { CHAT_LIMITS } from '@doodla/core';
import { RotateCcw, Send, Trash2, Undo2 } from 'lucide-react';
import type { FormEvent } from 'react';
import { useEffect, useRef } from 'react';
import type { Unsent } from '../room/chat';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';

/** Minutes of the hour in the viewer's own way. */
const CLOCK = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
const SMALL = 'grid size-11 shrink-0 place-items-center rounded-xl hover:bg-paper-dim';

/** What the class says to each other. */
export function ChatPart({ room }: { room: Room }) {
  const chat = room.chat!;
  const messages = useStore(chat.messages);
  const unsent = useStore(chat.unsent);
  const why = useWhyNot(room);
  const list = useRef<HTMLUListElement>(null);
  const count = messages.length + unsent.length;
  useEffect(() => {
    list.current?.scrollTo(0, list.current.scrollHeight);
  }, [count]);
  const say = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const words = (new FormData(form).get('words') as string).trim();
    if (words === '') return;
    chat.say(words);
    form.reset();
  };
  return (
    <div className="flex min-h-0 grow flex-col">
      <ul
        ref={list}
        role="log"
        aria-label={t('talk.chat')}
        tabIndex={0}
        className="min-h-0 grow overflow-auto px-3 py-1"
      >
        {count === 0 && <li className="px-1 py-2 text-ink-soft">{t('talk.nothingSaidYet')}</li>}
        {messages.map((message) => (
          <Said key={message.id} room={room} message={message} />
        ))}
        {unsent.map((one) => (
          <NotSent key={one.id} room={room} unsent={one} />
        ))}
      </ul>
      {why ? (
        <p role="status" className="px-4 py-3 font-bold">
          {why}
        </p>
      ) : (
        <form onSubmit={say} className="flex gap-2 p-3">
          <input
            name="words"
            aria-label={t('talk.yourMessage')}
            placeholder={t('talk.yourMessage')}
            maxLength={CHAT_LIMITS.words}
            autoComplete="off"
            className="min-h-11 min-w-0 grow rounded-xl border-2 border-paper-line bg-white px-3"
          />
          <Button look="main" type="submit" aria-label={t('talk.send')} className="!px-3">
            <Send aria-hidden size={18} />
          </Button>
        </form>
      )}
    </div>
  );
}

/** Why one may not say anything now. */
function useWhyNot(room: Room): string | undefined {
  const { chat, muted } = useStore(room.rules);
  const state = useStore(room.classroom!.state);
  if (state?.ended) return t('classroom.thisClassHasEnded');
  if (room.isTeacher) return undefined;
  if (!chat) return t('talk.chatIsOff');
  const me = room.target.actor?.id;
  return me !== undefined && muted.includes(me) ? t('talk.youAreMuted') : undefined;
}

function Said({ room, message }: { room: Room; message: ChatMessage }) {
  const { id, author, at, words, removed } = message;
  const chat = room.chat!;
  const person = room.personOf(author);
  return (
    <li className="flex items-start gap-1 py-1">
      <div className="min-w-0 grow">
        <span className="mr-2 font-bold" style={{ color: person?.colour }}>
          {nameOf(room, message)}
        </span>
        <time className="text-sm text-ink-soft" dateTime={new Date(at).toISOString()}>
          {CLOCK.format(at)}
        </time>
        <p className={removed ? 'text-ink-soft italic' : 'break-words'}>
          {removed ? t('talk.takenAway') : words}
        </p>
        {removed && room.isTeacher && <p className="break-words line-through">{words}</p>}
      </div>
      {room.isTeacher && (
        <button
          type="button"
          aria-label={t(removed ? 'talk.putBack' : 'talk.takeAway', { words })}
          title={t(removed ? 'talk.putBack' : 'talk.takeAway', { words })}
          onClick={() => void chat.setRemoved(id, !removed)}
          className={SMALL}
        >
          {removed ? <Undo2 aria-hidden size={16} /> : <Trash2 aria-hidden size={16} />}
        </button>
      )}
    </li>
  );
}

/** Who said something, as far as it is to be known; who has left is still called by their name. */
function nameOf(room: Room, { author, name }: ChatMessage): string {
  if (author === room.target.actor?.id) return t('talk.you');
  if (name === null) return t('talk.theTeacher');
  return name || t('talk.aClassmate');
}

function NotSent({ room, unsent: { id, words, refused } }: { room: Room; unsent: Unsent }) {
  const chat = room.chat!;
  const online = useStore(room.connection.status);
  return (
    <li className="flex items-start gap-1 py-1">
      <div className="min-w-0 grow">
        <p className="break-words text-ink-soft">{words}</p>
        <p className="text-sm">
          {refused ?? (online === 'online' ? t('talk.isBeingSent') : t('talk.waitsForConnection'))}
        </p>
      </div>
      {refused !== undefined && (
        <>
          <button
            type="button"
            aria-label={t('talk.sendAgain', { words })}
            title={t('talk.sendAgain', { words })}
            onClick={() => chat.sayAgain(id)}
            className={SMALL}
          >
            <RotateCcw aria-hidden size={16} />
          </button>
          <button
            type="button"
            aria-label={t('talk.forget', { words })}
            title={t('talk.forget', { words })}
            onClick={() => chat.forget(id)}
            className={SMALL}
          >
            <Trash2 aria-hidden size={16} />
          </button>
        </>
      )}
    </li>
  );
}
