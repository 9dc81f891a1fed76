import { describe, expect, it } from 'vitest';
import { TypedDraft } from '../src/typing/typedDraft';

function storage(refuses = false) {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem(key: string, value: string) {
      if (refuses) throw new DOMException('full', 'QuotaExceededError');
      kept.set(key, value);
    },
    removeItem: (key: string) => void kept.delete(key),
  };
}

describe('what is being typed of a formula', () => {
  it('is there again after the field was closed or the page loaded anew, each formula by itself', () => {
    const own = storage();
    new TypedDraft('formula', undefined, own).keep('x^2');
    new TypedDraft('formula', 'f', own).keep('y');
    expect(new TypedDraft('formula', undefined, own).get()).toBe('x^2');
    expect(new TypedDraft('formula', 'f', own).get()).toBe('y');
    expect(new TypedDraft('formula', 'g', own).get()).toBeUndefined();
    expect(new TypedDraft('plot', 'f', own).get()).toBeUndefined();
    new TypedDraft('formula', undefined, own).drop();
    expect(new TypedDraft('formula', undefined, own).get()).toBeUndefined();
  });

  it('can still be typed where nothing can be kept', () => {
    const draft = new TypedDraft('formula', undefined, storage(true));
    draft.keep('x');
    expect(draft.get()).toBeUndefined();
  });
});
