import { describe, expect, it } from 'vitest';
import { forShadow } from '../shadowStyles.mjs';
import { panesIn } from '../src/classroom/panesIn';
import { serverOf } from '../src/classroom/serverOf';

describe('the address of a server', () => {
  it.each([
    ['doodla.school.example', 'https://doodla.school.example'],
    ['  https://doodla.school.example/lessons ', 'https://doodla.school.example'],
    ['http://10.0.0.7:4600', 'http://10.0.0.7:4600'],
    ['10.0.0.7:4600', 'http://10.0.0.7:4600'],
    ['localhost:4600', 'http://localhost:4600'],
    ['board.local', 'http://board.local'],
  ])('%s is %s', (typed, origin) => expect(serverOf(typed)).toBe(origin));

  it.each(['', '   ', 'http://', 'a b c', 'ftp://'])('“%s” is none', (typed) =>
    expect(serverOf(typed)).toBeUndefined(),
  );
});

describe('where the parts of a tab are in a frame', () => {
  const panes = [
    { id: 1, region: { x: 0, y: 0, width: 1000, height: 500 }, place: { x: 0, y: -300, scale: 1 } },
  ];

  it('is in pixels of the frame, whatever its size', () => {
    expect(panesIn({ width: 1000, panes }, 2000, 1000)).toEqual([
      { id: 1, region: { x: 0, y: 0, width: 2000, height: 1000 }, place: { x: 0, y: -600, scale: 1 } },
    ]);
  });

  it('keeps to the units that it had when the window was as wide as first', () => {
    // Of a window half as wide, the frame shows everything twice as large.
    expect(panesIn({ width: 500, panes }, 1000, 1000)[0]!.place.scale).toBe(2);
  });
});

describe('styles for a shadow root', () => {
  it('have sizes that the page cannot change, and first values where registered properties do not count', () => {
    const css = forShadow(
      '@property --tw-ring{syntax:"*";inherits:false;initial-value:0 0 #0000}.a{margin:-.5rem 1.25rem;--premium:3}' +
        '@layer properties{@supports (((-webkit-hyphens:none)) and (not (margin-trim:block))){*{--tw-ring:0 0 #0000}}}',
    );
    expect(css).toContain('margin:-8px 20px');
    expect(css).not.toMatch(/rem\b|@property|hyphens/);
    expect(css).toContain('@supports (display: block) {*{--tw-ring:0 0 #0000}}');
    expect(css).toContain('--premium:3');
    // What a rule is for is left alone: its name may hold a size.
    const named = String.raw`.max-h-\[calc\(100\%-6rem\)\]{max-height:calc(100% - 6rem)}`;
    expect(forShadow(named)).toBe(named.replace('- 6rem', '- 96px'));
  });
});
