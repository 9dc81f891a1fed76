import type { PackedExplanation } from '@doodla/core/explain';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import type { PackFiles } from '../src/packed/packFiles';
import { readPack, writePack } from '../src/packed/packFiles';

const EXPLANATION: PackedExplanation = {
  version: 1,
  title: 'Loads </script>',
  language: 'en',
  recorded: { operations: [], turns: [{ at: 1, page: 'a page/1' }] },
  played: [],
  noted: {},
  stops: [],
  chapters: [{ at: 0, name: 'Page 1' }],
  cues: [],
  pages: [],
  colours: {},
};
const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());
const blobOf = (text: string, type: string) => new Blob([text], { type });
const packOf = (explanation: object, more: Record<string, Uint8Array> = {}) =>
  zipSync({ 'explanation.json': strToU8(JSON.stringify(explanation)), ...more });

describe('a packed explanation', () => {
  it('is read as it was packed, whatever its parts are called', async () => {
    const files: PackFiles = {
      explanation: EXPLANATION,
      grounds: new Map([['a page/1', blobOf('ground', 'image/webp')]]),
      pictures: new Map([['../picture.1', blobOf('picture', 'image/png')]]),
      sounds: new Map([
        ['take 1', blobOf('sound', 'audio/webm;codecs=opus')],
        ['take 2', blobOf('other', 'audio/mp4')],
      ]),
      videos: new Map([['take 1', blobOf('video', 'video/webm')]]),
      faces: new Map([['take 2', blobOf('face', 'video/mp4')]]),
    };
    const read = readPack(await bytesOf(await writePack(files)));
    expect(read.explanation).toEqual(EXPLANATION);
    for (const part of ['grounds', 'pictures', 'sounds', 'videos', 'faces'] as const) {
      expect([...read[part].keys()]).toEqual([...files[part].keys()]);
      for (const [id, blob] of read[part]) {
        expect(await blob.text()).toBe(await files[part].get(id)!.text());
        expect(blob.type).toBe(files[part].get(id)!.type.split(';')[0]);
      }
    }
  });

  it('leaves out what it does not know of', () => {
    const read = readPack(packOf(EXPLANATION, { 'other/x.bin': strToU8('?'), 'grounds/': strToU8('') }));
    expect([read.grounds.size, read.pictures.size, read.sounds.size]).toEqual([0, 0, 0]);
  });

  it.each([
    ['no ZIP file', strToU8('<!doctype html>')],
    ['cut off', packOf(EXPLANATION).subarray(0, 60)],
    ['without an explanation', zipSync({ 'sounds/take 1.webm': strToU8('sound') })],
    ['of a later version', packOf({ ...EXPLANATION, version: 2 })],
    ['without its pages', packOf({ ...EXPLANATION, pages: undefined })],
    ['something else', packOf([1, 2])],
  ])('is not read where it is %s, which is told in a sentence', (_, bytes) => {
    expect(() => readPack(bytes)).toThrow('This explanation cannot be read.');
  });
});
