import axe from 'axe-core';
import type { Page } from 'playwright-core';

/** Where rules find something of this weight, somebody is shut out. */
const WEIGHTS = ['serious', 'critical'];

/** What axe-core finds on a page that is serious, one line each; and ids that are there twice. */
export async function seriousFindings(page: Page): Promise<string[]> {
  await page.evaluate(axe.source);
  return page.evaluate(async (weights) => {
    const { axe } = window as unknown as {
      axe: {
        run: (
          root: Document,
          options: object,
        ) => Promise<{ violations: { id: string; impact: string; nodes: { target: string[] }[] }[] }>;
      };
    };
    const { violations } = await axe.run(document, { resultTypes: ['violations'] });
    const found = violations
      .filter((v) => weights.includes(v.impact))
      .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`);
    const ids = Array.from(document.querySelectorAll('[id]'), (e) => e.id);
    const twice = [...new Set(ids.filter((id, i) => ids.indexOf(id) < i))];
    return [...found, ...twice.map((id) => `the id "${id}" is there twice`)];
  }, WEIGHTS);
}
