/** Gives the code under test an empty `localStorage` and `sessionStorage` of its own. */
export function freshStorage(): void {
  Object.assign(globalThis, { localStorage: emptyStorage(), sessionStorage: emptyStorage() });
}

function emptyStorage() {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  };
}
