import { countries } from 'countries-list';
import isoCountries from 'i18n-iso-countries/index.js';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';

/** Continents as `countries-list` tells them apart. */
export const CONTINENTS = {
  africa: 'AF',
  asia: 'AS',
  europe: 'EU',
  northAmerica: 'NA',
  southAmerica: 'SA',
  oceania: 'OC',
} as const;
export type Continent = keyof typeof CONTINENTS;

/** A country as Natural Earth draws it. */
export interface Country {
  /** Two letters of ISO 3166-1; none for a region that it does not list. */
  code: string | undefined;
  continents: readonly string[];
  /** Longitudes and latitudes, degrees. */
  outline: GeoJSON.MultiPolygon;
}

/** Outlines of the countries of the earth, as a TopoJSON file of Natural Earth's holds them. */
export type Atlas = Topology<{ countries: GeometryCollection }>;

/** Countries that have letters, but no number in the atlas. */
const UNNUMBERED: Readonly<Record<string, string>> = { Kosovo: 'XK' };

/** All countries of an atlas; one that is drawn in several pieces is one. */
export function countriesOf(atlas: Atlas): Country[] {
  const found = new Map<string, Country>();
  for (const { id, geometry, properties } of feature(atlas, atlas.objects.countries).features) {
    const name = (properties as { name?: string } | null)?.name ?? '';
    const code = id === undefined ? UNNUMBERED[name] : isoCountries.numericToAlpha2(String(id));
    const key = code ?? name;
    const coordinates = [...(found.get(key)?.outline.coordinates ?? []), ...polygonsOf(geometry as Outline)];
    found.set(key, { code, continents: continentsOf(code), outline: { type: 'MultiPolygon', coordinates } });
  }
  return [...found.values()];
}

type Outline = GeoJSON.Polygon | GeoJSON.MultiPolygon;

const polygonsOf = (outline: Outline) =>
  outline.type === 'Polygon' ? [outline.coordinates] : outline.coordinates;

function continentsOf(code: string | undefined): readonly string[] {
  if (code === undefined) return [];
  const known: { continent: string; continents?: readonly string[] } =
    countries[code as keyof typeof countries];
  return known.continents ?? [known.continent];
}

/** What a country is called in a language, a BCP 47 tag. */
export function nameOfCountry(code: string, language: string): string {
  return namesIn(language).of(code) ?? code;
}

const namesIn = (language: string) => new Intl.DisplayNames([language], { type: 'region' });

/** The country that is meant by a name in a language, or by its two letters. */
export function countryNamed(text: string, codes: readonly string[], language: string): string | undefined {
  const plain = (name: string) =>
    name
      .normalize('NFD')
      .replace(/[^\p{L}]/gu, '')
      .toLocaleLowerCase(language);
  const wanted = plain(text);
  const names = namesIn(language);
  return codes.find((code) => plain(code) === wanted || plain(names.of(code) ?? code) === wanted);
}

/** Territories that Natural Earth draws with another country, or not at all, at the scale of 1 to 50 million. */
const WITHOUT_OUTLINE = new Set('AC BQ BV CC CX GF GI GP MQ RE SJ TA TK TV UM YT'.split(' '));

/** All countries that there is an outline of. */
export const countryCodes = (): string[] =>
  Object.keys(countries).filter((code) => !WITHOUT_OUTLINE.has(code));
