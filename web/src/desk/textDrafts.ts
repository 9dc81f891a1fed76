import type { Change, Operation, TextPart, TextStyle } from '@doodla/core';
import { isRecord, tidyParts } from '@doodla/core';
import type { LogClient } from '@doodla/core/client';
import { Store } from '@doodla/core/client';
import type { TextEdit } from './desk';

/** Typed text that is not on a page: being typed, or left over because it could not be put there. */
export interface TextDraft {
  edit: TextEdit;
  text: string;
  /** Letters that look unlike the rest; notes have none. */
  parts: readonly TextPart[];
  style: TextStyle;
}

const PREFIX = 'doodla.typing';

/**
 * Keeps what is being typed with every letter, in this browser, until it is on its page. What cannot be put
 * there, because pens went down, the page or class is gone or the page was reloaded, is left to be put in.
 */
export class TextDrafts {
  /** Left over, oldest first. */
  readonly left = new Store<readonly TextDraft[]>([]);
  private current: TextDraft | undefined;
  private readonly key: string;
  private restored = false;

  /** `owner` is the lesson or class. */
  constructor(
    private readonly log: Pick<LogClient, 'allows' | 'perform' | 'actor' | 'status'>,
    owner: string,
  ) {
    this.key = `${PREFIX} ${owner}`;
    this.restore();
    log.status.subscribe(() => this.restore());
  }

  begin(edit: TextEdit, style: TextStyle): void {
    this.current = { edit, text: edit.mark?.text ?? '', parts: partsOf(edit), style };
  }

  type(text: string, parts: readonly TextPart[] = []): void {
    if (!this.current) return;
    this.current = { ...this.current, text, parts };
    this.keep();
  }

  /** Keeps the words of an operation that was refused, because its page is gone or pens went down. */
  rescue({ changes, undoes }: Operation): void {
    const texts = undoes === undefined ? changes.flatMap(typedIn) : [];
    if (texts.length === 0) return;
    this.left.set([...this.left.get(), ...texts]);
    this.keep();
  }

  /** A new text is in the style that is in hand when it is finished. */
  restyle(style: TextStyle): void {
    if (this.current) this.current = { ...this.current, style };
  }

  /** Puts what was typed on its page, or keeps it where that is not possible now. */
  finish(): void {
    const draft = this.current;
    this.current = undefined;
    if (draft) this.put(draft);
  }

  /** Puts a draft that was left over on a page: its own, or the shown one if that is given. */
  putIn(draft: TextDraft, page = draft.edit.common.page): void {
    this.drop(draft);
    // Its own page or mark may be gone, so it becomes a text of its own elsewhere.
    const elsewhere = page !== draft.edit.common.page;
    const { mark, ...edit } = draft.edit;
    const moved = { ...edit, common: { ...edit.common, page } };
    this.put({ ...draft, edit: elsewhere || !mark ? moved : draft.edit });
  }

  drop(draft: TextDraft): void {
    this.left.set(this.left.get().filter((other) => other !== draft));
    this.keep();
  }

  private put(draft: TextDraft): void {
    const changes = changesOf(draft);
    if (changes.length > 0 && !this.log.allows(changes)) this.left.set([...this.left.get(), draft]);
    else if (changes.length > 0) this.log.perform(changes);
    this.keep();
  }

  /** What an earlier load of this page left over, once it is known who this is. */
  private restore(): void {
    const author = this.log.actor?.id;
    if (this.restored || author === undefined) return;
    this.restored = true;
    const kept = parsed(localStorage.getItem(this.key)).filter(({ edit }) => edit.common.author === author);
    if (kept.length > 0) this.left.set([...kept, ...this.left.get()]);
  }

  private keep(): void {
    if (!this.restored) return;
    const drafts = this.current ? [...this.left.get(), this.current] : this.left.get();
    const written = drafts.filter((draft) => changesOf(draft).length > 0);
    if (written.length === 0) localStorage.removeItem(this.key);
    else localStorage.setItem(this.key, JSON.stringify(written));
  }
}

/** What letters of an edited text had of their own before. */
export function partsOf({ mark }: TextEdit): readonly TextPart[] {
  return (mark?.kind === 'text' && mark.parts) || [];
}

function changesOf({ edit, text, style, parts }: TextDraft): Change[] {
  const { mark, common, x, y, width } = edit;
  const typed = text.trimEnd();
  const own = tidyParts(parts, style, typed.length);
  if (mark) {
    const sameParts = JSON.stringify(own) === JSON.stringify(partsOf(edit));
    if (typed === mark.text && sameParts) return [];
    if (typed === '' && mark.kind === 'text') return [{ do: 'remove', mark: mark.id }];
    return [{ do: 'patch', mark: mark.id, set: { text: typed, ...(!sameParts && { parts: own }) } }];
  }
  if (typed === '') return [];
  const added = { ...common, kind: 'text' as const, x, y, width, rotation: 0, style, text: typed };
  return [{ do: 'add', mark: own.length > 0 ? { ...added, parts: own } : added }];
}

/** A text that a change puts on a page, as if it had just been typed. */
function typedIn(change: Change): TextDraft[] {
  if (change.do !== 'add' || change.mark.kind !== 'text') return [];
  const { x, y, width, text, style, parts = [], ...rest } = change.mark;
  const { id, page, author, space, order, locked, group, alt, createdAt } = rest;
  const common = { id, page, author, space, order, locked, group, alt, createdAt };
  return [{ edit: { x, y, width, common }, text, parts, style }];
}

function parsed(text: string | null): TextDraft[] {
  try {
    const value: unknown = JSON.parse(text ?? '[]');
    // Drafts kept by an earlier version have no parts.
    return Array.isArray(value)
      ? value.filter(isDraft).map((draft) => ({ ...draft, parts: draft.parts ?? [] }))
      : [];
  } catch {
    // Somebody else has written there; nothing of ours can be read from it.
    return [];
  }
}

function isDraft(value: unknown): value is TextDraft {
  return (
    isRecord(value) &&
    typeof value.text === 'string' &&
    isRecord(value.style) &&
    isRecord(value.edit) &&
    isRecord(value.edit.common)
  );
}
