/** What is being typed of a formula, graph or chart, kept in this window until it is on the page: closing the sheet or the page loses nothing. */
export class TypedDraft {
  private readonly key: string;

  /** `id` is that of the mark that is changed; undefined for a new one. */
  constructor(
    what: 'chart' | 'figure' | 'formula' | 'plot',
    id: string | undefined,
    private readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> = sessionStorage,
  ) {
    this.key = `doodla.${what}.${id ?? 'new'}`;
  }

  get(): string | undefined {
    return this.storage.getItem(this.key) ?? undefined;
  }

  keep(text: string): void {
    try {
      this.storage.setItem(this.key, text);
    } catch {
      // Full: it is only kept as long as the field is open.
    }
  }

  drop(): void {
    this.storage.removeItem(this.key);
  }
}
