import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeEach, describe, expect, it } from 'vitest';
import { ACTION_IDS, ACTIONS, Shortcuts, writtenKey } from '../src/desk/shortcuts';

/** What the browser keeps, for the time of a test. */
class Kept {
  private readonly values = new Map<string, string>();
  getItem = (key: string) => this.values.get(key) ?? null;
  setItem = (key: string, value: string) => void this.values.set(key, value);
}

beforeEach(() => {
  Object.assign(globalThis, { localStorage: new Kept() });
});

describe('keys', () => {
  it('are all different to begin with', () => {
    const keys = ACTION_IDS.map((action) => ACTIONS[action].key);
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('that can be changed are nowhere written into a button', () => {
    const keys = new Set<string>(ACTION_IDS.map((action) => ACTIONS[action].key));
    const source = fileURLToPath(new URL('../src', import.meta.url));
    const files = readdirSync(source, { recursive: true, encoding: 'utf8' }).filter((name) =>
      name.endsWith('.tsx'),
    );
    expect(files.length).toBeGreaterThan(50);
    const written = files.flatMap((name) =>
      [...readFileSync(join(source, name), 'utf8').matchAll(/shortcut="([^"]+)"/g)]
        .filter(([, key]) => keys.has(key!))
        .map(([attribute]) => `${name}: ${attribute}`),
    );
    expect(written).toEqual([]);
  });

  it('can be changed, are kept per person, and can be put back', () => {
    const shortcuts = new Shortcuts('ada');
    expect(shortcuts.change('pen', 'Q')).toBeUndefined();
    expect(shortcuts.actionOf('Q')).toBe('pen');
    expect(new Shortcuts('ada').keyOf('pen')).toBe('Q');
    expect(new Shortcuts('bo').keyOf('pen')).toBe('P');
    shortcuts.reset();
    expect(shortcuts.keyOf('pen')).toBe('P');
  });

  it('of one letter or sign can be switched off together, and keep their places', () => {
    const shortcuts = new Shortcuts('ada');
    shortcuts.switchSingles(false);
    expect(['P', 'R', '?', '2', '.'].map((key) => shortcuts.actionOf(key))).toEqual(Array(5).fill(undefined));
    expect(shortcuts.keyOf('pen')).toBe('');
    expect(shortcuts.setKeyOf('pen')).toBe('P');
    expect(shortcuts.actionOf('Ctrl+Z')).toBe('undo');
    expect(shortcuts.actionOf('PageDown')).toBe('nextPage');
    expect(shortcuts.change('pen', 'H')).toContain('Highlighter');
    expect(new Shortcuts('ada').singlesOff).toBe(true);
    shortcuts.switchSingles(true);
    expect(shortcuts.actionOf('P')).toBe('pen');
  });

  it('are not given twice, and some never', () => {
    const shortcuts = new Shortcuts('ada');
    expect(shortcuts.change('pen', 'H')).toContain('Highlighter');
    expect(shortcuts.change('pen', 'Escape')).toContain('cannot be changed');
    expect(shortcuts.keyOf('pen')).toBe('P');
  });

  it.each([
    [{ key: 'p' }, 'P'],
    [{ key: '?', shiftKey: true }, '?'],
    [{ key: 'g', ctrlKey: true, shiftKey: true }, 'Ctrl+Shift+G'],
    [{ key: 'z', metaKey: true }, 'Ctrl+Z'],
    [{ key: '=' }, '+'],
    [{ key: 'PageDown' }, 'PageDown'],
  ])('%o is written %s', (event, written) => {
    expect(writtenKey(event as KeyboardEvent)).toBe(written);
  });
});
