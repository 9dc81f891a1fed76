/** What becomes of the page that is shown when another view of a screen comes up. */
export type Arrival<Shown> =
  /** The page that the view had. */
  | { kind: 'known'; shown: Shown }
  /** The shown page, on which nothing is written, is the view's from now on. */
  | { kind: 'same'; shown: Shown }
  /** A page that was left empty. */
  | { kind: 'spare'; shown: Shown }
  /** A page has to be made; `took` says which. */
  | { kind: 'new' };

/**
 * Which page each view of a shown screen has: what is written on a view waits for it there, and pages on which nothing
 * is written are used again.
 */
export class ViewPages<Shown extends { page: string }> {
  private readonly views = new Map<number, Shown>();
  private view = -1;
  /** The page of the view that is shown now. */
  current: Shown | undefined;
  /** A page that was left while nothing was on it. */
  private spare: Shown | undefined;

  /** Goes to a view; `isWrittenOn` is of the page shown until now. */
  arrive(view: number, isWrittenOn: boolean): Arrival<Shown> {
    const known = this.views.get(view);
    this.view = view;
    if (known) {
      if (!isWrittenOn && known !== this.current) this.spare = this.current;
      else if (known === this.spare) this.spare = undefined;
      this.current = known;
      return { kind: 'known', shown: known };
    }
    if (this.current && !isWrittenOn) return { kind: 'same', shown: this.give(this.current) };
    if (this.spare) {
      const shown = this.give(this.spare);
      this.spare = undefined;
      return { kind: 'spare', shown };
    }
    return { kind: 'new' };
  }

  /** The view that is shown now gets a page that was made for it. */
  took(shown: Shown): void {
    this.current = shown;
    this.views.set(this.view, shown);
  }

  /** A view is known to have a page from before. */
  recall(view: number, shown: Shown): void {
    this.views.set(view, shown);
  }

  /** The shown page goes on as that of a view of its own, and no other is known any more. */
  forget(): void {
    this.views.clear();
    this.view = -1;
  }

  is(view: number): boolean {
    return this.view === view;
  }

  /** A page that is given to another view no longer belongs to the one it had. */
  private give(shown: Shown): Shown {
    for (const [view, { page }] of this.views) if (page === shown.page) this.views.delete(view);
    this.took(shown);
    return shown;
  }
}
