import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';

// A field that refuses what was typed keeps the page from saving only if the page asks. Each screen that has such a field
// asks, or stands here with the reason why it need not.
const NEED_NOT: Readonly<Record<string, string>> = {
  'features/ranking/moved-view.ts': 'looks back; nothing is saved',
  'features/ranking/ranking.ts': 'looks at units; nothing is saved',
  'features/reviews/alternative-lines.ts': 'a part of a form',
  'features/reviews/line-list.ts': 'a part of a form',
  'features/reviews/line-reason.ts': 'a part of a form',
  'features/reviews/quotation-lines.ts': 'a part of a form',
  'features/reviews/use-lines.ts': 'a part of a form',
  'features/rules/criterion-form.ts': 'a part of a form',
  'features/rules/curve-editor.ts': 'a part of a form',
  'features/scale/scale.ts': 'looks at answers; nothing is saved',
  'features/take/take.ts': 'each value that is taken is measured at once, one that is refused is none',
  'ui/field/price-fields.ts': 'a part of a form',
  'ui/step-table/step-table.ts': 'a part of a form',
  'ui/take-settings-form.ts': 'a part of a form',
};

const app = join(import.meta.dirname, '../..');
const REFUSING =
  /<sd-(number|gain|date|currency|sheet)-field|<sd-price-fields|<sd-take-settings-form|<sd-step-table|\[most\]/;

function screens(): string[] {
  return readdirSync(app, { recursive: true })
    .map(String)
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .filter((name) => {
      const source = readFileSync(join(app, name), 'utf8');
      const outside = /templateUrl: '(.+?)'/.exec(source)?.[1];
      const template = outside ? readFileSync(join(app, dirname(name), outside), 'utf8') : source;
      return source.includes('@Component') && REFUSING.test(template);
    });
}

describe('screens with fields that refuse', () => {
  it('ask before they save', () => {
    const silent = screens().filter((name) => !readFileSync(join(app, name), 'utf8').includes('refusals.stop()'));
    expect(silent.sort()).toEqual(Object.keys(NEED_NOT).sort());
    expect(screens().length).toBeGreaterThan(12);
  });
});
