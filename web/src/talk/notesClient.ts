import type { NotedMessage, NotesReply, NoteStepsMessage, NoteStepsReply } from '@doodla/core';
import { LIVE } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { LiveError } from '@doodla/core/client';
import { notesSchema } from '@doodla/core/notes';
import { nanoid } from 'nanoid';
import { collab, getVersion, receiveTransaction, sendableSteps } from 'prosemirror-collab';
import type { Plugin, Transaction } from 'prosemirror-state';
import { EditorState } from 'prosemirror-state';
import { Step } from 'prosemirror-transform';

/** Letters that are typed within this time are sent together, milliseconds. */
const TOGETHER_MS = 150;

/** A class's notes as they are here, kept in step with what others write. */
export class NotesClient {
  private readonly client = nanoid();
  private readonly stops: (() => void)[];
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private current: EditorState | undefined;

  /** `onState` is told of every state; `plugins` are what the editor needs beside. */
  constructor(
    private readonly sitting: string,
    private readonly connection: Pick<Line, 'request' | 'on' | 'onOnline'>,
    private readonly options: {
      plugins: readonly Plugin[];
      onState(state: EditorState): void;
      tellProblem(sentence: string): void;
    },
  ) {
    this.stops = [
      connection.on<[NotedMessage]>(LIVE.noted, (told) => {
        if (told.sitting === sitting) this.hear(told);
      }),
      connection.onOnline(() => void this.catchUp()),
    ];
  }

  get state(): EditorState | undefined {
    return this.current;
  }

  dispatch(transaction: Transaction): void {
    if (!this.current) return;
    this.set(this.current.apply(transaction));
    if (transaction.docChanged) this.sendSoon();
  }

  /** What is not sent yet is sent now. */
  close(): void {
    clearTimeout(this.timer);
    void this.send();
    for (const stop of this.stops) stop();
  }

  private sendSoon(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), TOGETHER_MS);
  }

  private hear(told: NotedMessage): void {
    if (!this.current) return;
    const version = getVersion(this.current);
    if (told.version === version) this.take(told);
    else if (told.version > version) void this.catchUp();
  }

  private take({ steps, clients }: Pick<NotedMessage, 'steps' | 'clients'>): void {
    const all = steps.map((step) => Step.fromJSON(notesSchema, step));
    this.set(
      this.current!.apply(
        receiveTransaction(this.current!, all, [...clients], { mapSelectionBackward: true }),
      ),
    );
  }

  /** Asks how the notes are; own writing that was not taken yet is put after what others have written. */
  private async catchUp(): Promise<void> {
    if (this.current && sendableSteps(this.current)) return this.send();
    try {
      const reply = await this.connection.request<NotesReply>(LIVE.notes, { sitting: this.sitting });
      if (!this.current || getVersion(this.current) < reply.version) this.begin(reply);
    } catch (error) {
      this.failed(error);
    }
  }

  private begin({ doc, version }: NotesReply): void {
    const plugins = [...this.options.plugins, collab({ version, clientID: this.client })];
    this.set(EditorState.create({ doc: notesSchema.nodeFromJSON(doc), plugins }));
  }

  private async send(): Promise<void> {
    const unsent = this.current && sendableSteps(this.current);
    if (!unsent || this.sending) return;
    this.sending = true;
    const { version } = unsent;
    const steps = unsent.steps.map((step) => step.toJSON() as object);
    const message: NoteStepsMessage = { sitting: this.sitting, version, steps, client: this.client };
    try {
      const reply = await this.connection.request<NoteStepsReply>(LIVE.noteSteps, message);
      // Own steps that were taken are heard of like others'; they may have been already.
      if (reply.taken) this.confirm(version, steps);
      else if (reply.missed) this.hear(reply.missed);
      else await this.beginAgain();
    } catch (error) {
      this.failed(error);
      return;
    } finally {
      this.sending = false;
    }
    if (this.current && sendableSteps(this.current)) this.sendSoon();
  }

  private confirm(version: number, steps: readonly object[]): void {
    if (getVersion(this.current!) === version) this.take({ steps, clients: steps.map(() => this.client) });
  }

  /** Others have written so much that one's own can no longer be put among it: it goes to the end. */
  private async beginAgain(): Promise<void> {
    const own = sendableSteps(this.current!)!.steps.map(lettersOf).join('');
    this.begin(await this.connection.request<NotesReply>(LIVE.notes, { sitting: this.sitting }));
    const { doc, tr } = this.current!;
    if (own.trim() === '') return;
    const paragraph = notesSchema.nodes.paragraph.create(null, notesSchema.text(own));
    this.dispatch(tr.insert(doc.content.size, paragraph));
  }

  private failed(error: unknown): void {
    // Sent again with the next connection.
    if (error instanceof LiveError && error.code === 'unreachable') return;
    this.options.tellProblem((error as Error).message);
  }

  private set(state: EditorState): void {
    this.current = state;
    this.options.onState(state);
  }
}

function lettersOf(step: Step): string {
  const { slice } = step as Step & {
    slice?: { content: { textBetween(a: number, b: number, c: string): string; size: number } };
  };
  return slice ? slice.content.textBetween(0, slice.content.size, ' ') : '';
}
