import type { Plugin } from 'vite';

/** Files of the program that import each other in a circle, as a path that ends where it begins. */
export function circleIn(imports: ReadonlyMap<string, readonly string[]>): string[] | undefined {
  const done = new Set<string>();
  const path: string[] = [];
  const follow = (file: string): string[] | undefined => {
    if (path.includes(file)) return [...path.slice(path.indexOf(file)), file];
    if (done.has(file)) return undefined;
    path.push(file);
    for (const next of imports.get(file) ?? []) {
      const circle = follow(next);
      if (circle) return circle;
    }
    path.pop();
    done.add(file);
    return undefined;
  };
  for (const file of imports.keys()) {
    const circle = follow(file);
    if (circle) return circle;
  }
  return undefined;
}

/**
 * Ends a build whose files import each other in a circle: which of them runs first depends on where one comes in, and
 * a page could fail for some and not for others.
 */
export function noChunkCycles(): Plugin {
  return {
    name: 'no-chunk-cycles',
    generateBundle(_options, bundle) {
      const chunks = Object.values(bundle).filter((output) => output.type === 'chunk');
      const circle = circleIn(new Map(chunks.map(({ fileName, imports }) => [fileName, imports])));
      if (circle) this.error(`Files of the program import each other in a circle: ${circle.join(' → ')}`);
    },
  };
}
