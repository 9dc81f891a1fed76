import type { GeoProjection } from 'd3-geo';
import { geoArea, geoAzimuthalEqualArea, geoBounds, geoCentroid, geoEqualEarth } from 'd3-geo';
import type { Rect } from '../geometry/rect.js';
import type { Continent, Country } from './atlas.js';
import { CONTINENTS } from './atlas.js';

/** What is on a map: the world, a continent, or one country, by its two letters of ISO 3166-1. */
export type MapView = string;

export const MAP_VIEWS = ['world', ...(Object.keys(CONTINENTS) as Continent[])] as const;

/** What is seen of each continent: degrees west, south, east and north. */
const FRAMES: Readonly<Record<Continent, readonly [number, number, number, number]>> = {
  africa: [-19, -36, 53, 38],
  asia: [34, -9, 146, 72],
  europe: [-24, 35, 48, 71],
  northAmerica: [-166, 8, -54, 80],
  southAmerica: [-82, -56, -34, 13],
  oceania: [112, -48, 180, 14],
};

export const isContinent = (view: MapView): view is Continent => Object.hasOwn(CONTINENTS, view);

/** Whether a country is a part of what a map is about, and not only beside it. */
export function belongsTo(view: MapView, { code, continents }: Country): boolean {
  if (code === undefined) return false;
  if (view === 'world') return true;
  return isContinent(view) ? continents.includes(CONTINENTS[view]) : code === view;
}

/**
 * How a map lies in a part of a page. Areas are true to one another: the world by the Equal Earth projection (Šavrič, Patterson and
 * Jenny 2018), a part of it by Lambert's azimuthal one about its middle. Undefined where no such country is known.
 */
export function projectionOf(
  view: MapView,
  countries: readonly Country[],
  room: Rect,
): GeoProjection | undefined {
  const { x, y, width, height } = room;
  const box: [[number, number], [number, number]] = [
    [x, y],
    [x + width, y + height],
  ];
  if (view === 'world') return geoEqualEarth().precision(0).fitExtent(box, { type: 'Sphere' });
  const seen = seenOf(view, countries);
  if (!seen) return undefined;
  const [longitude, latitude] = seen.middle;
  return geoAzimuthalEqualArea()
    .rotate([-longitude, -latitude])
    .clipAngle(88)
    .precision(0)
    .fitExtent(box, { type: 'MultiPoint', coordinates: seen.points })
    .clipExtent(box);
}

interface Seen {
  middle: readonly [number, number];
  points: [number, number][];
}

function seenOf(view: MapView, countries: readonly Country[]): Seen | undefined {
  if (isContinent(view)) {
    const [west, south, east, north] = FRAMES[view];
    return { middle: [(west + east) / 2, (south + north) / 2], points: edgeOf(west, south, east, north) };
  }
  const country = countries.find(({ code }) => code === view);
  if (!country) return undefined;
  const main = largestPart(country.outline);
  const [[west, south], [east, north]] = geoBounds(main);
  const right = east < west ? east + 360 : east;
  return { middle: geoCentroid(main), points: edgeOf(west, south, right, north) };
}

/** The largest of the parts of a country. */
function largestPart({ coordinates }: GeoJSON.MultiPolygon): GeoJSON.Polygon {
  const parts = coordinates.map((rings): GeoJSON.Polygon => ({ type: 'Polygon', coordinates: rings }));
  return parts.reduce((best, part) => (geoArea(part) > geoArea(best) ? part : best));
}

const STEPS = 12;

/** Points all round a frame, which is bent on a map. */
function edgeOf(west: number, south: number, east: number, north: number): [number, number][] {
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const [x, y] = [west + ((east - west) * i) / STEPS, south + ((north - south) * i) / STEPS];
    return [
      [x, south],
      [x, north],
      [west, y],
      [east, y],
    ] as [number, number][];
  }).flat();
}
