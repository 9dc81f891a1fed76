/** Something that happens now and then, and whoever wants to be told. */
export class Signal<T = void> {
  private readonly listeners = new Set<(what: T) => void>();

  tell = (what: T): void => {
    for (const listener of [...this.listeners]) listener(what);
  };

  /** Calls back each time, until what is returned is called. */
  subscribe = (listener: (what: T) => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}
