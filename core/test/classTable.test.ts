import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAX_NAMES } from '../src/index.js';
import { namesOfTable, readClassTable, UnreadableTable, withNames } from '../src/classTable/index.js';

const utf8 = (text: string) => new TextEncoder().encode(text);
const namesFrom = (bytes: Uint8Array) => {
  const table = readClassTable(bytes);
  return namesOfTable(table, table.names);
};

describe('a class list as CSV', () => {
  // RFC 4180, section 2: lines end in CRLF, with or without at the end; quoted fields may hold separators, line breaks
  // and quotes that are doubled. The forms are those of its rules 1 to 7, from memory, with names in them.
  it.each([
    ['each record on a line of its own', 'Moss,Wren\r\nVale,Odo\r\n'],
    ['no line break after the last record', 'Moss,Wren\r\nVale,Odo'],
    ['a heading', 'Surname,First name\r\nMoss,Wren\r\nVale,Odo\r\n'],
    ['quoted fields', '"Moss","Wren"\r\n"Vale","Odo"'],
  ])('is read as RFC 4180 has it: %s', (_, text) => {
    expect(namesFrom(utf8(text))).toEqual(['Wren Moss', 'Odo Vale']);
  });

  it('has fields with separators, line breaks and quotes in them', () => {
    const { rows } = readClassTable(utf8('"aaa","b \r\nbb","c,cc"\r\nzzz,"y""yy",xxx'));
    expect(rows).toEqual([
      ['aaa', 'b \r\nbb', 'c,cc'],
      ['zzz', 'y"yy', 'xxx'],
    ]);
  });

  // How school offices' tables look: common practice, no source.
  it.each([
    [
      'semicolons and more columns',
      'Nr.;Nachname;Vorname;Geburtstag\n1;Moß;Wren;1.2.2013\n2;Vale;Odo;3.4.2013',
    ],
    ['tabs', 'First Name\tLast Name\nWren\tMoß\nOdo\tVale'],
    ['"name" beside first names', 'Name;Vorname\nMoß;Wren\nVale;Odo'],
    ['whole names', 'id,Student,mail\n7,"Moß, Wren",w@school.example\n8,Odo Vale,o@school.example'],
    ['no heading, numbers first', '1;Moß;Wren\n2;Vale;Odo'],
    ['blank lines and spaces', '\n Surname , Given name \n\n Moß , Wren \n,\n Vale , Odo \n'],
  ])('finds the names: %s', (_, text) => {
    expect(namesFrom(utf8(text))).toEqual(['Wren Moß', 'Odo Vale']);
  });

  // WHATWG Encoding Standard: byte order marks, and windows-1252, where E4 is ä and 80 is €.
  it.each([
    ['UTF-8', utf8('Vorname;Nachname\nJürg;Bär')],
    ['UTF-8 with its mark', utf8('\uFEFFVorname;Nachname\nJürg;Bär')],
    ['Windows-1252', Uint8Array.from('Vorname;Nachname\nJürg;Bär', (letter) => letter.codePointAt(0)!)],
    ['UTF-16, low byte first', utf16('\uFEFFVorname;Nachname\nJürg;Bär', true)],
    ['UTF-16, high byte first', utf16('\uFEFFVorname;Nachname\nJürg;Bär', false)],
  ])('may be in %s', (_, bytes) => expect(namesFrom(bytes)).toEqual(['Jürg Bär']));

  it.each([
    ['nothing', utf8('')],
    ['only a heading', utf8('First name,Surname\n')],
    ['a zip, as spreadsheets are', Uint8Array.of(0x50, 0x4b, 3, 4, 0, 0, 0, 0)],
  ])('is refused where it is %s', (_, bytes) => {
    expect(() => readClassTable(bytes)).toThrow(UnreadableTable);
  });

  it('lets other columns be chosen', () => {
    const table = readClassTable(utf8('Wren;Moss;7a\nOdo;Vale;7a'));
    expect(namesOfTable(table, { first: 0, last: 1 })).toEqual(['Wren Moss', 'Odo Vale']);
    expect(namesOfTable(table, { first: 0 })).toEqual(['Wren', 'Odo']);
    expect(namesOfTable(table, { last: 1 })).toEqual(['Moss', 'Vale']);
    expect(namesOfTable(table, {})).toEqual([]);
    expect(namesOfTable(table, { first: 9 })).toEqual([]);
  });

  it('comes after who is on the list, nobody twice', () => {
    expect(withNames(['Ida', 'wren moss'], ['Wren Moss', 'Odo'])).toEqual(['Ida', 'wren moss', 'Odo']);
  });

  it('is read or refused, whatever the file holds', () => {
    fc.assert(
      fc.property(fc.oneof(fc.uint8Array(), fc.string({ unit: 'binary' }).map(utf8)), (bytes) => {
        try {
          const names = namesFrom(bytes);
          expect(names.length).toBeLessThanOrEqual(MAX_NAMES);
        } catch (error) {
          expect(error).toBeInstanceOf(UnreadableTable);
        }
      }),
    );
  });
});

function utf16(text: string, isLittle: boolean): Uint8Array {
  const view = new DataView(new ArrayBuffer(text.length * 2));
  [...text].forEach((letter, i) => view.setUint16(i * 2, letter.charCodeAt(0), isLittle));
  return new Uint8Array(view.buffer);
}
