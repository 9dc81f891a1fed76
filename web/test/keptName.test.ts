import { beforeEach, describe, expect, it } from 'vitest';
import { knownGroups, rememberGroup, titleOf } from '../src/sittings/keptName';
import { freshStorage } from './helpers/fakeStorage';

beforeEach(freshStorage);

describe('what a class is kept under', () => {
  it('names what is given, in one line', () => {
    expect(titleOf({ group: ' Form 8 ', theme: 'Trusses', when: '25 Nov 2026, 08:24' })).toBe(
      'Form 8, Trusses, 25 Nov 2026, 08:24',
    );
    expect(titleOf({ group: '', theme: 'Trusses', when: ' ' })).toBe('Trusses');
  });

  it('offers the groups taught before, the last one first and each once', () => {
    for (const group of ['Form 8', 'Form 9', ' Form 8 ', '']) rememberGroup(group);
    expect(knownGroups()).toEqual(['Form 8', 'Form 9']);
    for (let n = 0; n < 20; n++) rememberGroup(`Group ${n}`);
    expect(knownGroups()).toHaveLength(12);
    expect(knownGroups()[0]).toBe('Group 19');
  });
});
