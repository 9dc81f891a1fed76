/** Gives the code under test an empty `localStorage` of its own. */
export function freshStorage(): void {
  const kept = new Map<string, string>();
  const localStorage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  };
  Object.assign(globalThis, { localStorage });
}
