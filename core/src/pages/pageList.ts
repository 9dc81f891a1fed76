/** Indices from 0 of the pages that a list such as `1-3, 7` names, all where it is empty; undefined where it names none or others. */
export function pagesOfList(list: string, count: number): number[] | undefined {
  const all = Array.from({ length: count }, (_, i) => i);
  if (list.trim() === '') return all;
  const pages = list.split(',').flatMap((part) => {
    const match = /^\s*(\d{1,5})(?:\s*[-–]\s*(\d{1,5}))?\s*$/.exec(part);
    const [from, to] = [Number(match?.[1]), Number(match?.[2] ?? match?.[1])];
    return match && from >= 1 && to >= from && to <= count ? all.slice(from - 1, to) : [-1];
  });
  return pages.includes(-1) ? undefined : pages;
}

/** The list that names some pages, by their indices from 0 in rising order. */
export function listOfPages(pages: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const page of pages) {
    const last = runs.at(-1);
    if (last && last[1] === page) last[1] = page + 1;
    else runs.push([page, page + 1]);
  }
  return runs.map(([from, to]) => (to === from + 1 ? `${to}` : `${from + 1}-${to}`)).join(', ');
}
