import type { NoteStepsMessage, NoteStepsReply } from '@doodla/core';
import { LIVE } from '@doodla/core';
import { LiveError } from '@doodla/core/client';
import { SharedNotes } from '@doodla/core/notes';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { FakeLine } from '../../core/test/helpers/fakeLine';
import { NotesClient } from '../src/talk/notesClient';

let notes: SharedNotes;
let writers: Writer[];

/** A browser with the notes open, on a line of its own to one server. */
class Writer {
  readonly line = new FakeLine();
  readonly problems: string[] = [];
  readonly client: NotesClient;

  constructor() {
    this.line.answer = (event, message) => {
      if (event === LIVE.notes) return notes.kept();
      return event === LIVE.noteSteps ? take(message as NoteStepsMessage) : {};
    };
    this.client = new NotesClient('s1', this.line, {
      plugins: [],
      onState: () => undefined,
      tellProblem: (sentence) => this.problems.push(sentence),
    });
    writers.push(this);
  }

  get text(): string {
    const { doc } = this.client.state!;
    return doc.textBetween(0, doc.content.size, '|');
  }

  /** Types letters at a place, from the end if it is left out. */
  type(letters: string, at = this.client.state!.doc.content.size - 1): void {
    this.client.dispatch(this.client.state!.tr.insertText(letters, at));
  }
}

/** As the server takes steps in, and tells all who are there. */
function take({ version, steps, client }: NoteStepsMessage): NoteStepsReply {
  if (notes.take(version, steps, client)) {
    const told = { sitting: 's1', version, steps, clients: steps.map(() => client) };
    for (const { line } of writers) if (line.isOnline) line.tell(LIVE.noted, told);
    return { taken: true };
  }
  const missed = notes.since(version);
  if (!missed) return { taken: false, missed: null };
  const [told, clients] = [missed.map(({ step }) => step), missed.map((one) => one.client)];
  return { taken: false, missed: { sitting: 's1', version, steps: told, clients } };
}

const kept = () => JSON.stringify(notes.kept().doc);
const settled = async () => {
  await vi.advanceTimersByTimeAsync(1000);
};

beforeEach(async () => {
  vi.useFakeTimers();
  notes = SharedNotes.empty();
  writers = [];
  new Writer();
  new Writer();
  await settled();
});
afterEach(() => {
  for (const { client } of writers) client.close();
  vi.useRealTimers();
});

describe('notes in several browsers', () => {
  it('are the same for all who write at once', async () => {
    const [ada, wren] = writers as [Writer, Writer];
    ada.type('Beam', 1);
    wren.type('Arch', 1);
    await settled();
    expect(ada.text).toBe(wren.text);
    expect([...ada.text].sort()).toEqual([...'ArchBeam'].sort());
    expect(kept()).toContain(ada.text);
  });

  it('are sent in few messages, however many letters are typed', async () => {
    const [ada] = writers as [Writer];
    for (const letter of 'A beam bends') ada.type(letter);
    await settled();
    expect(kept()).toContain('A beam bends');
    expect(ada.line.requests.filter(({ event }) => event === LIVE.noteSteps)).toHaveLength(1);
  });

  it('keep what is typed without a connection, and put it among what others wrote meanwhile', async () => {
    const [ada, wren] = writers as [Writer, Writer];
    ada.type('Beam', 1);
    await settled();
    wren.line.isOnline = false;
    wren.type(' bends');
    ada.type('A ', 1);
    await settled();
    expect(wren.text).toBe('Beam bends');
    wren.line.comeBack();
    await settled();
    expect([ada.text, wren.text]).toEqual(['A Beam bends', 'A Beam bends']);
  });

  it('take steps in once that were stored though no answer came', async () => {
    const [ada, wren] = writers as [Writer, Writer];
    const { answer } = ada.line;
    ada.line.answer = (event, message) => {
      const reply = answer(event, message);
      if (event !== LIVE.noteSteps) return reply;
      ada.line.isOnline = false;
      return new LiveError('unreachable', 'There was no answer.');
    };
    // It is not heard of here either.
    const tell = ada.line.tell.bind(ada.line);
    ada.line.tell = (event, message) => (event === LIVE.noted ? undefined : tell(event, message));
    ada.type('Beam', 1);
    await settled();
    ada.line.tell = tell;
    ada.line.answer = answer;
    ada.line.comeBack();
    await settled();
    expect([ada.text, wren.text]).toEqual(['Beam', 'Beam']);
  });

  it('put at the end what can no longer be put in its place', async () => {
    const [ada, wren] = writers as [Writer, Writer];
    wren.line.isOnline = false;
    wren.type('My own words', 1);
    for (let i = 0; i < 501; i += 1) notes.take(i, [insertion('x')], 'somebody');
    wren.line.comeBack();
    await settled();
    ada.line.comeBack();
    await settled();
    expect(wren.text).toBe(`${'x'.repeat(501)}|My own words`);
    expect(ada.text).toBe(wren.text);
  });

  it('say why something could not be written', async () => {
    const [ada] = writers as [Writer];
    ada.line.answers = { [LIVE.noteSteps]: new LiveError('notes-full', 'The notes are full.') };
    ada.type('Beam', 1);
    await settled();
    expect(ada.problems).toEqual(['The notes are full.']);
    expect(ada.text).toBe('Beam');
  });
});

const insertion = (text: string) => ({
  stepType: 'replace',
  from: 1,
  to: 1,
  slice: { content: [{ type: 'text', text }] },
});
