import { hasWords, searchWords } from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { fetchStored } from '../api/http';
import { chosenLanguage, t } from '../words';

/** Subjects of ready pictures, each with its name; `scripts/readyPictures` says what belongs to which. */
export const SUBJECT_NAMES = {
  animals: t('shelf.animals'),
  plants: t('shelf.plants'),
  food: t('shelf.food'),
  body: t('shelf.body'),
  people: t('shelf.people'),
  feelings: t('shelf.feelings'),
  earth: t('shelf.earth'),
  places: t('shelf.places'),
  transport: t('shelf.transport'),
  time: t('shelf.time'),
  sport: t('shelf.sport'),
  music: t('shelf.music'),
  school: t('shelf.school'),
  science: t('shelf.science'),
  home: t('shelf.home'),
  signs: t('shelf.signs'),
  countries: t('shelf.countries'),
} as const;

export type Subject = keyof typeof SUBJECT_NAMES;

/** A picture's file, what it is called, and other words for it. */
export type ReadyPicture = readonly [file: string, name: string, words: string];

export type ReadyIndex = Readonly<Record<Subject, readonly ReadyPicture[]>>;

const INDEXED = ['en', 'de'] as const;
const indexed = () => INDEXED.find((language) => language === chosenLanguage()) ?? 'en';

/** What pictures there are; the file is kept by the browser, so that they are found without a connection too. */
export const readyPicturesQuery = queryOptions({
  queryKey: ['ready-pictures'],
  queryFn: async () => (await fetchStored(`/ready/${indexed()}.json`)).json() as Promise<ReadyIndex>,
  staleTime: Infinity,
  networkMode: 'offlineFirst',
});

export const readyPictureFile = (file: string) => `/ready/${file}.svg`;

/** Those of a subject, which for line drawings is none; with words, those of all subjects that all of the words are found in, best names first. */
export function picturesFor(
  index: ReadyIndex,
  subject: Subject | 'drawings',
  question: string,
): readonly ReadyPicture[] {
  const words = searchWords(question);
  if (words.length === 0) return subject === 'drawings' ? [] : index[subject];
  const found = Object.values(index)
    .flat()
    .filter(([, name, others]) => hasWords(`${name} ${others}`, words));
  const byName = found.filter(([, name]) => hasWords(name, words));
  return [...byName, ...found.filter((picture) => !byName.includes(picture))];
}
