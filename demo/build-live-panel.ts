import { lettersOf } from '#core/rules/listening/letters';
import { newTestSchema, type TestPage } from '#contracts/listening';
import { panelCommandSchema, type PanelCommandDraft, type PanelPage } from '#contracts/live-panel';
import { unitName } from '#contracts/unit-name';
import type { Application } from '#server/wiring';
import { DEMO_PANEL, DEMO_PANEL_WORDS } from './live-panel';
import { DEMO_UNITS } from './scenario';

/**
 * Begins a panel and holds its first heat; the fifth unit is being heard when it ends.
 *
 * @param application - with the units of the scenario
 * @param ranked - items of the panel as a listener orders them, best first
 */
export async function holdDemoPanel(
  application: Application,
  ranked: (page: TestPage, items: readonly string[], listener: string) => string[],
): Promise<void> {
  const { tests, livePanels, catalogue } = application;
  const known = await catalogue.specimens();
  const units = DEMO_PANEL.units.flatMap((model) => {
    const unit = DEMO_UNITS.find((u) => u.model === model);
    return known.find((k) => unit && unitName(k) === unitName(unit))?.id ?? [];
  });
  const parsed = newTestSchema.safeParse({ ...DEMO_PANEL.test, units });
  // A demo of fewer runs (tests) has no panel.
  if (!parsed.success || units.length < DEMO_PANEL.units.length) return;
  const test = await tests.create(parsed.data, undefined, `demo ${DEMO_PANEL.test.name}`);
  const lead = (command: PanelCommandDraft): Promise<PanelPage> =>
    livePanels.lead(test.row.id, panelCommandSchema.parse(command), `demo ${DEMO_PANEL.test.name}`);
  for (const name of DEMO_PANEL.listeners) await lead({ kind: 'came', name });
  const page = await lead({ kind: 'heat' });
  const { items } = page.turns[0];
  const letterOf = (item: string): string => lettersOf(items)[items.indexOf(item)];
  for (const letter of items.map(letterOf)) await lead({ kind: 'now', letter });
  for (const { unit, by, words, free } of DEMO_PANEL_WORDS) {
    const item = page.items[unit].id;
    const sitting = by === null ? null : page.listeners[by].sitting;
    if (items.includes(item))
      await lead({ kind: 'said', sitting, turn: 1, letter: letterOf(item), words: [...words], free });
  }
  for (const { sitting, name } of page.listeners)
    await lead({ kind: 'order', sitting, letters: ranked(test, items, name).map(letterOf) });
  const { lone } = (await lead({ kind: 'close' })).offers;
  if (lone === null) return;
  await lead({ kind: 'place', into: 1, item: lone });
  await lead({ kind: 'now', letter: lettersOf([...items, lone])[items.length] });
  await lead({ kind: 'placed', sitting: page.listeners[0].sitting, at: 1 });
}
