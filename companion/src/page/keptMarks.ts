import type { GluedMark, KeptMark } from '@doodla/core/glue';
import { keptOf, readGlued, shortName } from '@doodla/core/glue';
import { nanoid } from 'nanoid';

/** What is kept of an address beside its marks, so that pages can be listed. */
export interface KeptPage {
  address: string;
  title: string;
  /** Milliseconds since 1970-01-01 UTC. */
  changedAt: number;
}

export const PAGE_KEY = 'page:';
export const MARK_KEY = 'mark:';

export interface KeptOf {
  /** Marks that are others now; undefined for those that are gone. */
  (marks: ReadonlyMap<string, GluedMark | undefined>): void;
}

/** The marks of an address in the browser's store for the extension, one entry each, so that two tabs do not take each other's. */
export class KeptMarks {
  private readonly prefix: string;
  private readonly pageKey: string;
  /** What is to be written; one write at a time, what comes meanwhile goes with the next. */
  private waiting = new Map<string, GluedMark | undefined>();
  private writing: Promise<void> | undefined;
  private readonly heard: Parameters<typeof chrome.storage.local.onChanged.addListener>[0];
  /** By which this tab knows what it has written itself, as that comes back as a change. */
  private readonly tab = nanoid();
  /** What this tab has taken away. */
  private readonly gone = new Set<string>();

  constructor(
    private readonly address: string,
    private readonly onElsewhere: KeptOf,
    private readonly onFailed: () => void,
  ) {
    const name = shortName(address);
    this.prefix = `${MARK_KEY}${name}:`;
    this.pageKey = `${PAGE_KEY}${name}`;
    this.heard = (changes) => this.hear(changes);
    chrome.storage.local.onChanged.addListener(this.heard);
  }

  /** What is kept of the address, the first made first. */
  async load(): Promise<Map<string, GluedMark>> {
    const all = await this.keys();
    const kept = await chrome.storage.local.get(all.filter((key) => key.startsWith(this.prefix)));
    const marks = Object.values(kept).flatMap((value) => readGlued(value) ?? []);
    marks.sort((a, b) => a.mark.createdAt - b.mark.createdAt);
    return new Map(marks.map((glued) => [glued.mark.id, glued]));
  }

  /** Keeps marks as they are now; those that are gone no longer. */
  keep(marks: ReadonlyMap<string, GluedMark | undefined>): void {
    for (const [id, glued] of marks) this.waiting.set(id, glued);
    this.writing ??= this.write().finally(() => (this.writing = undefined));
  }

  /** Resolves when all is kept. */
  async settled(): Promise<void> {
    while (this.writing) await this.writing;
  }

  close(): void {
    chrome.storage.local.onChanged.removeListener(this.heard);
  }

  private async write(): Promise<void> {
    while (this.waiting.size > 0) {
      const marks = this.waiting;
      this.waiting = new Map();
      try {
        await this.writeAll(marks);
      } catch {
        // The browser gives an extension so much room and no more; what is drawn stays on the page and can be saved as a file.
        for (const [id, glued] of marks) if (!this.waiting.has(id)) this.waiting.set(id, glued);
        return this.onFailed();
      }
    }
  }

  private async writeAll(marks: ReadonlyMap<string, GluedMark | undefined>): Promise<void> {
    const kept: Record<string, KeptMark & { by: string }> = {};
    const gone: string[] = [];
    for (const [id, glued] of marks) {
      if (glued) kept[this.prefix + id] = { ...keptOf(glued), by: this.tab };
      else gone.push(this.prefix + id);
      if (!glued) this.gone.add(id);
    }
    const page: KeptPage = { address: this.address, title: document.title, changedAt: Date.now() };
    await chrome.storage.local.set({ ...kept, [this.pageKey]: page });
    if (gone.length > 0) await chrome.storage.local.remove(gone);
  }

  private hear(changes: Record<string, chrome.storage.StorageChange>): void {
    const elsewhere = new Map<string, GluedMark | undefined>();
    for (const [key, { newValue }] of Object.entries(changes)) {
      if (!key.startsWith(this.prefix)) continue;
      const id = key.slice(this.prefix.length);
      const isOwn =
        newValue === undefined ? this.gone.delete(id) : (newValue as { by?: string }).by === this.tab;
      if (!isOwn && !this.waiting.has(id)) elsewhere.set(id, readGlued(newValue));
    }
    if (elsewhere.size > 0) this.onElsewhere(elsewhere);
  }

  /** Names alone where the browser can say them: all that was ever written is much. */
  private async keys(): Promise<string[]> {
    const { local } = chrome.storage;
    return local.getKeys ? local.getKeys() : Object.keys(await local.get(null));
  }
}
