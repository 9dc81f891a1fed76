import type { LineDrawing } from '@doodla/core/drawings';
import { hasWords, searchWords } from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { fetchStored } from '../api/http';
import { chosenLanguage } from '../words';

/** A drawing's name in its set, what it is called, and other words for it. */
export type DrawingName = readonly [id: string, name: string, words: string];

const NAMED = ['en', 'de'] as const;

/** Lines of all drawings; the file is kept by the browser, so that they are there without a connection too. */
export async function fetchDrawings(): Promise<LineDrawing[]> {
  const { drawings } = (await (await fetchStored('/drawings/lines.json')).json()) as {
    drawings: LineDrawing[];
  };
  return drawings;
}

export const lineDrawingsQuery = queryOptions({
  queryKey: ['line-drawings'],
  queryFn: async () => new Map((await fetchDrawings()).map((drawing) => [drawing.id, drawing])),
  staleTime: Infinity,
  networkMode: 'offlineFirst',
});

/** What the drawings are called in the language that is spoken here, by name. */
export const drawingNamesQuery = queryOptions({
  queryKey: ['drawing-names'],
  queryFn: async () => {
    const language = NAMED.find((one) => one === chosenLanguage()) ?? 'en';
    return (await fetchStored(`/drawings/${language}.json`)).json() as Promise<readonly DrawingName[]>;
  },
  staleTime: Infinity,
  networkMode: 'offlineFirst',
});

/** Those that all of the words are found in, best names first; all where there are no words. */
export function drawingsNamed(names: readonly DrawingName[], question: string): readonly DrawingName[] {
  const words = searchWords(question);
  const found = names.filter(([, name, others]) => hasWords(`${name} ${others}`, words));
  const byName = found.filter(([, name]) => hasWords(name, words));
  return [...byName, ...found.filter((drawing) => !byName.includes(drawing))];
}
