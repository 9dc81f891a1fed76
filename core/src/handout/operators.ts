import { strToU8 } from 'fflate';

const code = (letter: string) => letter.charCodeAt(0);
const [SPACE, LINE_FEED, RETURN, COMMENT] = [32, 10, 13, code('%')];
const [STRING, STRING_END, ESCAPE, NAME] = [code('('), code(')'), code('\\'), code('/')];
const [SAVE, RESTORE] = [code('q'), code('Q')];
const [PICTURE_1, PICTURE_2, END_1] = [code('I'), code('D'), code('E')];
const [WHITE, DELIMITER] = [1, 2];
/** What bytes part tokens (ISO 32000-1 §7.2.2): white space, and what delimits. */
const PARTS = new Uint8Array(256);
for (const white of [0, 9, LINE_FEED, 12, RETURN, SPACE]) PARTS[white] = WHITE;
for (const delimiter of '()<>[]{}/%') PARTS[code(delimiter)] = DELIMITER;

/**
 * A content stream in which every state of the graphics that is saved is restored, and no other (§8.4.2), showing what it
 * did: readers leave a restore out that nothing was saved for, but not all of them once something goes before or after.
 * Undefined where it is so already.
 */
export function balanced(content: Uint8Array): Uint8Array | undefined {
  const surplus: number[] = [];
  let depth = 0;
  for (const { operator, at } of operatorsIn(content)) {
    if (operator === 'q') depth += 1;
    else if (operator === 'Q' && depth > 0) depth -= 1;
    else if (operator === 'Q') surplus.push(at);
  }
  if (surplus.length === 0 && depth === 0) return undefined;
  const ending = strToU8('\nQ'.repeat(depth));
  const result = new Uint8Array(content.length + ending.length);
  result.set(content);
  for (const at of surplus) result[at] = SPACE;
  result.set(ending, content.length);
  return result;
}

/** The operators that save and restore, and where they are. */
function* operatorsIn(content: Uint8Array): Iterable<{ operator: 'q' | 'Q'; at: number }> {
  const end = content.length;
  let at = 0;
  while (at < end) {
    const byte = content[at]!;
    if (PARTS[byte] === WHITE) at += 1;
    else if (byte === COMMENT) at = lineEnd(content, at);
    else if (byte === STRING) at = stringEnd(content, at);
    else if (byte === NAME) at = tokenEnd(content, at + 1);
    else if (PARTS[byte] === DELIMITER) at += 1;
    else {
      const next = tokenEnd(content, at);
      if (next - at === 1 && (byte === SAVE || byte === RESTORE))
        yield { operator: byte === SAVE ? 'q' : 'Q', at };
      const isPicture = next - at === 2 && byte === PICTURE_1 && content[at + 1] === PICTURE_2;
      at = isPicture ? pictureEnd(content, next) : next;
    }
  }
}

function lineEnd(content: Uint8Array, at: number): number {
  while (at < content.length && content[at] !== LINE_FEED && content[at] !== RETURN) at += 1;
  return at;
}

function tokenEnd(content: Uint8Array, at: number): number {
  while (at < content.length && PARTS[content[at]!] === 0) at += 1;
  return at;
}

/** Behind a string in brackets, which may have brackets in it (§7.3.4.2). */
function stringEnd(content: Uint8Array, at: number): number {
  let depth = 0;
  for (; at < content.length; at++) {
    const byte = content[at];
    if (byte === ESCAPE) at += 1;
    else if (byte === STRING) depth += 1;
    else if (byte === STRING_END && --depth === 0) return at + 1;
  }
  return content.length;
}

/** Behind the bytes of a picture that stands in the content itself (§8.9.7): `EI` as a word of its own. */
function pictureEnd(content: Uint8Array, at: number): number {
  for (; at + 2 < content.length; at++) {
    const isWord =
      PARTS[content[at]!] === WHITE && (at + 3 === content.length || PARTS[content[at + 3]!] === WHITE);
    if (isWord && content[at + 1] === END_1 && content[at + 2] === PICTURE_1) return at + 3;
  }
  return content.length;
}
