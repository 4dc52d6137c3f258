import { processingOf, type TakeSettingsNoted } from '#core/rules/take-conditions';
import { takeFurtherSettingsSchema } from '#contracts/run-document';

/** Whatever else was noted with a take, as a row holds it. */
export const settingsOfRow = ({ settings }: { readonly settings: unknown }): TakeSettingsNoted =>
  takeFurtherSettingsSchema.parse(settings);

/** What was done to a take after it was recorded, in words; null for one that is as it came. */
export const processingOfRow = (row: { readonly settings: unknown }): string | null => processingOf(settingsOfRow(row));
