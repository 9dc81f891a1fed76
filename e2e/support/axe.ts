import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Finding {
  id: string;
  impact: string;
  nodes: { html: string }[];
}

/** Findings of axe-core, of any impact, against WCAG 2.2 A and AA and its best practices. */
export async function findings(page: Page): Promise<string[]> {
  // What is just coming or going has no colours of its own.
  await page.waitForFunction(() =>
    [...document.querySelectorAll('[data-sonner-toast]')].every(
      (notice) => notice.getAnimations().length === 0,
    ),
  );
  await page.evaluate(axe);
  const { violations } = await page.evaluate(() =>
    (window as unknown as { axe: { run(options: object): Promise<{ violations: Finding[] }> } }).axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    }),
  );
  return violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html}`);
}
