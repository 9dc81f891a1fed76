import { contrast } from '@doodla/core';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const css = readFileSync(new URL('../src/ui/look.css', import.meta.url), 'utf8');
const colours: Record<string, string> = Object.fromEntries(
  [...css.matchAll(/--color-([\w-]+): (#[0-9a-f]{6});/g)].map(([, name, hex]) => [name!, hex!]),
);

// WCAG 2.2: 1.4.3 asks for 4.5 to 1 for text, 1.4.11 for 3 to 1 for what marks a control.
const TEXT: [string, string][] = [
  ['ink', 'paper'],
  ['ink', 'paper-dim'],
  ['ink-soft', 'paper'],
  ['ink-soft', 'paper-dim'],
  ['paper', 'board'],
  ['paper', 'board-light'],
  ['paper', 'board-hover'],
  ['board', 'chalk'],
  ['alarm', 'paper'],
  ['paper', 'alarm'],
  ['paper', 'ink'],
];
const EDGES: [string, string][] = [
  ['paper-line', 'paper'],
  ['board-line', 'board'],
  ['board-line', 'board-light'],
  ['chalk', 'board'],
  ['chalk', 'board-light'],
  ['chalk-deep', 'paper'],
];

describe('colours of the interface', () => {
  it.each(TEXT)('%s on %s is readable', (text, ground) => {
    expect(contrast(colours[text]!, colours[ground]!)).toBeGreaterThanOrEqual(4.5);
  });

  it.each(EDGES)('%s on %s is seen', (edge, ground) => {
    expect(contrast(colours[edge]!, colours[ground]!)).toBeGreaterThanOrEqual(3);
  });
});
