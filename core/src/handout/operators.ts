import { strToU8 } from 'fflate';

/** Bytes that part tokens (ISO 32000-1 §7.2.2): white space, and what delimits. */
const WHITE = new Set([0, 9, 10, 12, 13, 32]);
const DELIMITERS = new Set([...'()<>[]{}/%'].map((letter) => letter.charCodeAt(0)));
const code = (letter: string) => letter.charCodeAt(0);
const SPACE = 32;

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
function* operatorsIn(content: Uint8Array): Iterable<{ operator: string; at: number }> {
  const end = content.length;
  let at = 0;
  while (at < end) {
    const byte = content[at]!;
    if (byte === code('%')) at = lineEnd(content, at);
    else if (byte === code('(')) at = stringEnd(content, at);
    else if (byte === code('/')) at = tokenEnd(content, at + 1);
    else if (WHITE.has(byte) || DELIMITERS.has(byte)) at += 1;
    else {
      const next = tokenEnd(content, at);
      const length = next - at;
      if (length === 1) yield { operator: String.fromCharCode(byte), at };
      at =
        length === 2 && byte === code('I') && content[at + 1] === code('D')
          ? pictureEnd(content, next)
          : next;
    }
  }
}

function lineEnd(content: Uint8Array, at: number): number {
  while (at < content.length && content[at] !== 10 && content[at] !== 13) at += 1;
  return at;
}

function tokenEnd(content: Uint8Array, at: number): number {
  while (at < content.length && !WHITE.has(content[at]!) && !DELIMITERS.has(content[at]!)) at += 1;
  return at;
}

/** Behind a string in brackets, which may have brackets in it (§7.3.4.2). */
function stringEnd(content: Uint8Array, at: number): number {
  let depth = 0;
  for (; at < content.length; at++) {
    if (content[at] === code('\\')) at += 1;
    else if (content[at] === code('(')) depth += 1;
    else if (content[at] === code(')') && --depth === 0) return at + 1;
  }
  return content.length;
}

/** Behind the bytes of a picture that stands in the content itself (§8.9.7): `EI` as a word of its own. */
function pictureEnd(content: Uint8Array, at: number): number {
  for (; at + 2 < content.length; at++) {
    const isWord = WHITE.has(content[at]!) && (at + 3 === content.length || WHITE.has(content[at + 3]!));
    if (isWord && content[at + 1] === code('E') && content[at + 2] === code('I')) return at + 3;
  }
  return content.length;
}
