import { randomInt } from 'node:crypto';

/** Letters and digits that nobody mistakes for another, without vowels, so that no words arise. */
const ALPHABET = 'CDFGHJKMNPQRTVWXY34679';
const LENGTH = 6;

export function makeJoinCode(): string {
  return Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]).join('');
}

/** A code as somebody typed it, without spaces, dashes and lower case. */
export function normaliseCode(typed: string): string {
  return typed.toUpperCase().replace(/[\s-]/g, '');
}
