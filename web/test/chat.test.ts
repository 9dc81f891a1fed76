import type { ChatMessage, SayMessage } from '@doodla/core';
import { LIVE } from '@doodla/core';
import { LiveError } from '@doodla/core/client';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { FakeLine } from '../../core/test/helpers/fakeLine';
import { Chat } from '../src/room/chat';
import { IdeaVotes } from '../src/room/ideaVotes';
import { freshStorage } from './helpers/fakeStorage';

let line: FakeLine;
const problems = vi.fn<(sentence: string) => void>();

const said = (id: string, set: Partial<ChatMessage> = {}): ChatMessage => ({
  id,
  author: 'tove',
  name: 'Tove',
  words: `words of ${id}`,
  at: 1,
  removed: false,
  ...set,
});
const told = (message: ChatMessage, sitting = 's1') => line.tell(LIVE.said, { sitting, message });
const asked = (event: string) =>
  line.requests.filter((one) => one.event === event).map(({ message }) => message);

beforeEach(() => {
  freshStorage();
  problems.mockClear();
  connectAnew();
});

function connectAnew(): void {
  line = new FakeLine();
  line.answers = { [LIVE.chat]: { messages: [said('1')] } };
  line.answer = (event, message) => {
    if (event !== LIVE.say) return {};
    const { id, words } = message as SayMessage;
    return said(id, { author: 'wren', words });
  };
}

const begin = (owner = 'wren') => new Chat('s1', owner, line, problems);
const words = (chat: Chat) => chat.messages.get().map((message) => message.words);

describe('the chat in a browser', () => {
  it('has what was said before, and counts what comes until it is looked at', async () => {
    const chat = begin();
    await vi.waitUntil(() => chat.messages.get().length === 1);
    told(said('2'));
    told(said('2', { removed: true }));
    told(said('3'), 'another class');
    expect(chat.unread.get()).toBe(1);
    expect(chat.messages.get().map(({ id, removed }) => [id, removed])).toEqual([
      ['1', false],
      ['2', true],
    ]);
    chat.open.set(true);
    expect(chat.unread.get()).toBe(0);
    told(said('4'));
    expect(chat.unread.get()).toBe(0);
  });

  it('shows what one says once, though it is heard of before the answer', async () => {
    const chat = begin();
    let answer: (message: ChatMessage) => void = () => undefined;
    line.answers[LIVE.say] = new Promise<ChatMessage>((resolve) => (answer = resolve));
    chat.say('Hello');
    const { id } = chat.unsent.get()[0]!;
    told(said(id, { author: 'wren', words: 'Hello' }));
    expect(chat.unsent.get()).toEqual([]);
    answer(said(id, { author: 'wren', words: 'Hello' }));
    await vi.waitUntil(() => chat.messages.get().length === 2);
    expect(words(chat)).toEqual(['words of 1', 'Hello']);
    expect(chat.unread.get()).toBe(0);
  });

  it('keeps what is said without a connection, in order, over a reload, and sends it later', async () => {
    line.isOnline = false;
    const chat = begin();
    chat.say('One');
    chat.say('Two');
    await Promise.resolve();
    expect(chat.unsent.get().map((one) => one.words)).toEqual(['One', 'Two']);
    chat.close();
    connectAnew();
    line.isOnline = false;
    const again = begin();
    expect(again.unsent.get().map((one) => one.words)).toEqual(['One', 'Two']);
    line.comeBack();
    await vi.waitUntil(() => again.unsent.get().length === 0);
    expect(asked(LIVE.say).map((message) => message.words)).toEqual(['One', 'Two']);
    expect(localStorage.getItem('doodla.chat.s1.wren')).toBeNull();
  });

  it('sends nobody the words of another who used the same browser', async () => {
    line.isOnline = false;
    begin().say('Mine');
    connectAnew();
    const other = begin('tove');
    await vi.waitUntil(() => other.messages.get().length === 1);
    expect(other.unsent.get()).toEqual([]);
    expect(asked(LIVE.say)).toEqual([]);
    expect(begin().unsent.get()).toMatchObject([{ words: 'Mine' }]);
  });

  it('goes on a moment later where it was too fast', async () => {
    vi.useFakeTimers();
    const chat = begin();
    line.answers[LIVE.say] = new LiveError('too-fast', 'That was too fast.');
    chat.say('One');
    await vi.advanceTimersByTimeAsync(100);
    expect(chat.unsent.get()).toMatchObject([{ words: 'One' }]);
    expect(chat.unsent.get()[0]!.refused).toBeUndefined();
    delete line.answers[LIVE.say];
    await vi.advanceTimersByTimeAsync(1000);
    expect(chat.unsent.get()).toEqual([]);
    vi.useRealTimers();
  });

  it('says why something was not taken, goes on with the next, and tries it again or drops it', async () => {
    const chat = begin();
    line.answers[LIVE.say] = new LiveError('chat-off', 'The chat is off.');
    chat.say('One');
    await vi.waitUntil(() => chat.unsent.get()[0]?.refused !== undefined);
    expect(chat.unsent.get()).toMatchObject([{ words: 'One', refused: 'The chat is off.' }]);
    delete line.answers[LIVE.say];
    chat.say('Two');
    await vi.waitUntil(() => chat.unsent.get().length === 1);
    chat.sayAgain(chat.unsent.get()[0]!.id);
    await vi.waitUntil(() => chat.unsent.get().length === 0);
    expect(words(chat).slice(1)).toEqual(['Two', 'One']);
    line.answers[LIVE.say] = new LiveError('chat-off', 'The chat is off.');
    chat.say('Three');
    await vi.waitUntil(() => chat.unsent.get()[0]?.refused !== undefined);
    chat.forget(chat.unsent.get()[0]!.id);
    expect(chat.unsent.get()).toEqual([]);
  });
});

describe('votes in a browser', () => {
  it('are asked for once, kept up with, and asked for again after the connection was away', async () => {
    line.answers = { [LIVE.vote]: { mine: ['a'], counts: null } };
    const votes = new IdeaVotes('s1', line, problems);
    expect(votes.on('p1')).toBe(votes.on('p1'));
    await vi.waitUntil(() => votes.on('p1').get().mine.length === 1);
    line.tell(LIVE.voted, { sitting: 's1', page: 'p1', counts: { a: 3 } });
    line.tell(LIVE.voted, { sitting: 's2', page: 'p1', counts: { a: 9 } });
    line.tell(LIVE.voted, { sitting: 's1', page: 'p2', counts: { a: 9 } });
    expect(votes.on('p1').get()).toEqual({ mine: ['a'], counts: { a: 3 } });
    line.comeBack();
    expect(asked(LIVE.vote)).toHaveLength(2);
  });

  it('that cannot be given are told in a sentence, and stand as they were', async () => {
    line.answers = { [LIVE.vote]: { mine: ['a'], counts: null } };
    const votes = new IdeaVotes('s1', line, problems);
    await vi.waitUntil(() => votes.on('p1').get().mine.length === 1);
    line.answers = { [LIVE.vote]: new LiveError('no-votes-left', 'You have given all your votes.') };
    await votes.vote('p1', 'b', true);
    expect(problems).toHaveBeenCalledWith('You have given all your votes.');
    expect(votes.on('p1').get().mine).toEqual(['a']);
  });
});
