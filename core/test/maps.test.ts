import { geoArea } from 'd3-geo';
import fc from 'fast-check';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { pointsOf } from '../src/geometry/path.js';
import { pointWithin } from '../src/answers/pointWithin.js';
import { insidePolygon, polygonArea } from '../src/geometry/polygon.js';
import { countriesOf, countryCodes, countryNamed, drawnMap, MAP_VIEWS } from '../src/maps/index.js';
import { atlas } from './helpers/atlas.js';

/** Areas as the open dataset world-countries publishes them, square kilometres. */
const PUBLISHED = new Map(
  (createRequire(import.meta.url)('world-countries/countries.json') as { cca2: string; area: number }[]).map(
    ({ cca2, area }) => [cca2, area],
  ),
);
/** Mean radius of the earth (IUGG), kilometres. */
const RADIUS = 6371.0088;
const LARGE = 300_000;
const ROOM = { x: 20, y: 30, width: 1200, height: 640 };
const NEAR = countriesOf(atlas('50m'));

const kilometres = (outline: GeoJSON.MultiPolygon) => geoArea(outline) * RADIUS ** 2;

describe('outlines of countries', () => {
  const ratios = NEAR.flatMap(({ code, outline }) => {
    const published = PUBLISHED.get(code ?? '') ?? 0;
    return published > LARGE ? [{ code, ratio: kilometres(outline) / published }] : [];
  });

  it('are as large as published where borders and shores are agreed on (1 %)', () => {
    const agreed = 'AO AR BO BR BW CO EG IQ KZ MX MR NA PE PL TZ TR US UZ VE VN ZA ZM'.split(' ');
    for (const { code, ratio } of ratios)
      if (agreed.includes(code!)) expect(Math.abs(ratio - 1), code).toBeLessThan(0.01);
    expect(ratios.filter(({ code }) => agreed.includes(code!))).toHaveLength(agreed.length);
  });

  it('are mostly about as large elsewhere, where figures count waters, ice and claims otherwise', () => {
    const off = ratios.map(({ ratio }) => Math.abs(ratio - 1)).sort((a, b) => a - b);
    expect(off.length).toBeGreaterThan(70);
    expect(off[Math.floor(off.length / 2)]).toBeLessThan(0.0125);
    expect(off[Math.floor(off.length * 0.8)]).toBeLessThan(0.04);
  });

  it('are there for each country that can be chosen, once', () => {
    const codes = NEAR.flatMap(({ code }) => code ?? []);
    expect(new Set(codes).size).toBe(codes.length);
    expect([...countryCodes()].sort()).toEqual([...codes].sort());
  });

  it('are found by a name in a language, without its accents, or by two letters', () => {
    const codes = countryCodes();
    expect(countryNamed('Brasilien', codes, 'de')).toBe('BR');
    expect(countryNamed('cote divoire', codes, 'en')).toBe('CI');
    expect(countryNamed('ke', codes, 'en')).toBe('KE');
    expect(countryNamed('Atlantis', codes, 'en')).toBeUndefined();
  });
});

describe('a map', () => {
  const views = [...MAP_VIEWS, 'BR', 'FJ', 'NZ', 'VA', 'RU', 'US'];

  it.each(views)('%s: lies in its room, with all that it is about', (view) => {
    const { countries } = drawnMap(atlas(view === 'world' ? '110m' : '50m'), view, ROOM)!;
    const parts = countries.filter(({ isPart }) => isPart);
    expect(parts.length).toBeGreaterThan(0);
    for (const { rings } of countries)
      for (const ring of rings) {
        expect(ring.length).toBeGreaterThanOrEqual(6);
        expect(ring.length).toBeLessThanOrEqual(4000);
        for (const [x, y] of pointsOf(ring)) {
          expect(x).toBeGreaterThan(ROOM.x - 1);
          expect(x).toBeLessThan(ROOM.x + ROOM.width + 1);
          expect(y).toBeGreaterThan(ROOM.y - 1);
          expect(y).toBeLessThan(ROOM.y + ROOM.height + 1);
        }
      }
  });

  it('knows no country that is not there', () => {
    expect(drawnMap(atlas('50m'), 'XX', ROOM)).toBeUndefined();
  });

  it.each(['world', 'africa', 'southAmerica'])('%s: areas are true to one another (2 %%)', (view) => {
    const source = atlas(view === 'world' ? '110m' : '50m');
    const { countries } = drawnMap(source, view, ROOM)!;
    const known = new Map(countriesOf(source).map(({ code, outline }) => [code, kilometres(outline)]));
    const scales = countries.flatMap(({ code, isPart, rings }) => {
      const real = known.get(code)!;
      const drawn = rings.reduce((sum, ring) => sum + Math.abs(polygonArea(pointsOf(ring))), 0);
      return isPart && real > 600_000 && code !== 'ZA' ? [drawn / real] : [];
    });
    expect(scales.length).toBeGreaterThan(3);
    const middle = [...scales].sort((a, b) => a - b)[Math.floor(scales.length / 2)]!;
    for (const scale of scales) expect(Math.abs(scale / middle - 1)).toBeLessThan(0.02);
  });

  it('has borders that two countries share to the point', () => {
    const { countries } = drawnMap(atlas('50m'), 'southAmerica', ROOM)!;
    const pointsBy = (code: string) => {
      const { rings } = countries.find((country) => country.code === code)!;
      return pointsOf(rings[0]!).map(String);
    };
    const brazil = new Set(pointsBy('BR'));
    for (const beside of ['BO', 'PY', 'PE', 'CO', 'VE'])
      expect(pointsBy(beside).filter((point) => brazil.has(point)).length, beside).toBeGreaterThan(8);
  });
});

describe('a point within', () => {
  it('lies in any polygon that is not crossed by itself', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.2, max: 1, noNaN: true }), { minLength: 3, maxLength: 40 }),
        (radii) => {
          const polygon = radii.map((radius, i): [number, number] => {
            const angle = (2 * Math.PI * i) / radii.length;
            return [200 + 100 * radius * Math.cos(angle), 100 + 100 * radius * Math.sin(angle)];
          });
          expect(insidePolygon(...pointWithin(polygon), polygon)).toBe(true);
        },
      ),
    );
  });

  it('lies in a bent one, whose middle does not', () => {
    const bent: [number, number][] = [
      [0, 0],
      [100, 0],
      [100, 10],
      [10, 10],
      [10, 90],
      [100, 90],
      [100, 100],
      [0, 100],
    ];
    expect(insidePolygon(50, 50, bent)).toBe(false);
    expect(insidePolygon(...pointWithin(bent), bent)).toBe(true);
  });
});
