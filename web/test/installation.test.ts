import type { SchoolFigures } from '@doodla/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrangedSchools, ORDERS, totals } from '../src/installation/arrangedSchools';
import { slugOf, typedNumber } from '../src/installation/typed';
import { gigabytes } from '../src/ui/gigabytes';

const school = (more: Partial<SchoolFigures>): SchoolFigures => ({
  ...{ id: more.name ?? 'x', name: '', slug: 'x', createdAt: 0, closedAt: null, teachers: 0, admins: 0 },
  ...{ lessons: 0, classes: 0, students: 0, running: 0, bytes: 0, usedAt: null },
  ...{ maxBytes: null, maxTeachers: null, signIn: null },
  ...more,
});

describe('schools of an installation', () => {
  const north = school({ name: 'Northgate', slug: 'north', teachers: 3, usedAt: 9, bytes: 4e9 });
  const east = school({ name: 'Eastfield', slug: 'ef', teachers: 12, bytes: 1e9 });

  it('stand by their names, or by a figure from the largest, and those that were never used last', () => {
    const names = (order: (typeof ORDERS)[number], words = '') =>
      arrangedSchools([north, east], words, order).map(({ name }) => name);
    expect(names('name')).toEqual(['Eastfield', 'Northgate']);
    expect(names('teachers')).toEqual(['Eastfield', 'Northgate']);
    expect(names('bytes')).toEqual(['Northgate', 'Eastfield']);
    expect(names('usedAt')).toEqual(['Northgate', 'Eastfield']);
    expect([names('name', ' NORTH '), names('name', 'ef'), names('name', 'west')]).toEqual([
      ['Northgate'],
      ['Eastfield'],
      [],
    ]);
  });

  it('add up', () => {
    expect(totals([north, east])).toMatchObject({ teachers: 15, bytes: 5e9, lessons: 0 });
  });
});

describe('what is typed', () => {
  it('as a size is a number in either way of writing, nothing, or none at all', () => {
    expect(['2.5', '2,5', ' 10 ', ''].map(typedNumber)).toEqual([2.5, 2.5, 10, null]);
    expect(typedNumber('much')).toBeNaN();
  });

  it('as a name suggests a word for its address that the server takes', () => {
    expect(['Northgate School', 'École Saint-Ève', '  8 & 9  ', '学校'].map(slugOf)).toEqual([
      'northgate-school',
      'ecole-saint-eve',
      '8-9',
      '',
    ]);
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 120 }), (name) => {
        expect(slugOf(name)).toMatch(/^(?:[a-z0-9](?:[a-z0-9-]{0,38}[a-z0-9])?)?$/);
      }),
    );
  });
});

it('sizes are told in gigabytes, small ones to a tenth', () => {
  expect([0, 1.44e9, 9.96e9, 41.5e9].map(gigabytes)).toEqual([0, 1.4, 10, 42]);
});
