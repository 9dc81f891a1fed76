/** A value that can be watched. */
export class Store<T> {
  private readonly listeners = new Set<() => void>();

  constructor(private value: T) {}

  get = (): T => this.value;

  set(value: T): void {
    if (Object.is(value, this.value)) return;
    this.value = value;
    for (const listener of [...this.listeners]) listener();
  }

  /** Changes some fields of an object value; nobody is told where they are as they were. */
  patch(part: Partial<T>): void {
    const keys = Object.keys(part) as (keyof T)[];
    if (keys.every((key) => Object.is(part[key], this.value[key]))) return;
    this.set({ ...this.value, ...part });
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}
