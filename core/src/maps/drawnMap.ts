import type { GeoProjection, GeoStream } from 'd3-geo';
import { geoStream } from 'd3-geo';
import { pointsOf } from '../geometry/path.js';
import { polygonArea } from '../geometry/polygon.js';
import type { Rect } from '../geometry/rect.js';
import type { Point } from '../marks/kind.js';
import type { Atlas, Country } from './atlas.js';
import { countriesOf } from './atlas.js';
import type { MapView } from './mapView.js';
import { belongsTo, projectionOf } from './mapView.js';

/** A country on a map, page units. */
export interface DrawnCountry {
  code: string | undefined;
  /** Whether the map is about it. */
  isPart: boolean;
  /** Flat lists of x, y, the largest first; not closed by a repeated point. At least one. */
  rings: readonly (readonly number[])[];
}

export interface DrawnMap {
  /** The edge of the earth where it is seen whole. */
  edge: readonly number[] | undefined;
  /** Those with the largest outlines first, so that one inside another lies over it. */
  countries: readonly DrawnCountry[];
}

/** To a grid of so many page units points are rounded, so that what two countries share stays shared; coarser where there are too many. */
const GRIDS = [0.8, 1.1, 1.6, 2.4] as const;
/** Most points of one outline, and of all. */
const MOST = { ring: 1900, map: 14_000 };
/** Islands that are smaller are left out, unless they are all there is of a country; square page units. */
const LEAST = 4;

/** A map drawn into a part of a page; undefined where its country is not known. */
export function drawnMap(atlas: Atlas, view: MapView, room: Rect): DrawnMap | undefined {
  const all = countriesOf(atlas);
  const projection = projectionOf(view, all, room);
  if (!projection) return undefined;
  const edge =
    view === 'world' ? ringsOf({ type: 'Sphere' }, projection.precision(0.5), GRIDS[0])[0] : undefined;
  projection.precision(0);
  for (const grid of GRIDS) {
    const countries = all
      .map((country) => drawn(country, view, projection, grid))
      .filter(({ rings }) => rings.length > 0);
    if (isTooFine(countries) && grid !== GRIDS.at(-1)) continue;
    return { edge, countries: countries.sort((a, b) => areaOf(b.rings[0]!) - areaOf(a.rings[0]!)) };
  }
  return undefined;
}

function isTooFine(countries: readonly DrawnCountry[]): boolean {
  const counts = countries.flatMap(({ rings }) => rings.map((ring) => ring.length / 2));
  return Math.max(...counts) > MOST.ring || counts.reduce((sum, count) => sum + count, 0) > MOST.map;
}

function drawn(country: Country, view: MapView, projection: GeoProjection, grid: number): DrawnCountry {
  const rings = ringsOf(country.outline, projection, grid).sort((a, b) => areaOf(b) - areaOf(a));
  const [first, ...rest] = rings;
  const isPart = belongsTo(view, country);
  const large = rest.filter((ring) => areaOf(ring) >= LEAST);
  const isSeen = first && (isPart || areaOf(first) >= LEAST);
  return { code: country.code, isPart, rings: isSeen ? [first, ...large] : [] };
}

/** The outlines of something on a map; holes in it as well. */
function ringsOf(
  shape: Parameters<typeof geoStream>[0],
  projection: GeoProjection,
  grid: number,
): number[][] {
  const snapped = (value: number) => Math.round(Math.round(value / grid) * grid * 100) / 100;
  const rings: number[][] = [];
  let ring: Point[] = [];
  const sink: GeoStream = {
    point: (x, y) => ring.push([snapped(x), snapped(y)]),
    lineStart: () => (ring = []),
    lineEnd: () => rings.push(withoutNeedless(ring)),
    polygonStart() {
      // Rings come one by one.
    },
    polygonEnd() {
      // Rings come one by one.
    },
  };
  geoStream(shape, projection.stream(sink));
  return rings.filter(({ length }) => length >= 6);
}

/** The same outline without points that say nothing: those again, and those between two in one line with them. */
function withoutNeedless(ring: readonly Point[]): number[] {
  const kept: Point[] = [];
  for (const point of ring) {
    if (isSame(kept.at(-1), point)) continue;
    while (kept.length > 1 && isStraight(kept.at(-2)!, kept.at(-1)!, point)) kept.pop();
    kept.push(point);
  }
  while (kept.length > 1 && isSame(kept[0], kept.at(-1)!)) kept.pop();
  return kept.flat();
}

const isSame = (a: Point | undefined, b: Point) => a?.[0] === b[0] && a[1] === b[1];

const isStraight = ([ax, ay]: Point, [bx, by]: Point, [cx, cy]: Point) =>
  Math.abs((bx - ax) * (cy - ay) - (by - ay) * (cx - ax)) < 1e-6;

/** What an outline holds, square page units. */
const areaOf = (ring: readonly number[]) => Math.abs(polygonArea(pointsOf(ring)));
