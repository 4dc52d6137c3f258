import { quantity } from '#core/measure/registry';
import type { MeasurementJson } from '#contracts/measurement';
import { currentSheet } from '#contracts/sheet';
import type { SpecimenSheet } from '#contracts/specimen';
import type { UnitExport } from '#contracts/unit-export';
import { csvText, type CsvStyle } from '#domain/tables/csv';

/** All measurements of a unit, run by run, in an open form. */
export function unitExport(sheet: SpecimenSheet): UnitExport {
  const { maker, model, label, category } = sheet.row;
  return {
    format: 'sediment-measurements/1',
    unit: { maker, model, label, category, ...(sheet.variantOf === null ? {} : { variantOf: sheet.variantOf }) },
    claims: sheet.claims,
    sheet: Object.fromEntries(currentSheet(sheet.sheet)),
    prices: sheet.prices.map(({ amount, currency, kind, date, region, tax, shop, note }) => ({ amount, currency, kind, date, region, tax, shop, note })), // prettier-ignore
    photographs: sheet.photographs.map(({ sha256, format, bytes, widthPx, heightPx, subject, caption, date }) => ({ sha256, format, bytes, widthPx, heightPx, subject, caption, date })), // prettier-ignore
    relations: sheet.relations.map(({ kind, isOwn, other, name, uses, price, since }) => ({ kind, isOwn, name: other?.name ?? name, uses, price, since })), // prettier-ignore
    runs: sheet.runs.map((run) => ({
      date: run.date,
      protocol: run.protocol,
      protocolVersion: run.protocolVersion,
      measurements: run.measurements.map(withUnit),
      curves: run.curves,
      takes: run.takes.map((take) => ({
        step: take.step,
        clipSha256: take.clip.sha256,
        gainDb: take.gainDb,
        distanceM: take.distanceM,
        angleDeg: take.angleDeg,
        windSpeedMs: take.windSpeedMs,
        settings: take.settings,
        measurements: take.measurements.map(withUnit),
      })),
    })),
  };
}

const withUnit = <M extends MeasurementJson>(m: M) => ({ ...m, unit: quantity(m.quantity).unit });

const COLUMNS = [
  'date',
  'protocol',
  'take',
  'quantity',
  'name',
  'value',
  'unit',
  'uncertainty of this reading (unit of the value)',
  'uncertainty of another reading (unit of the value)',
  'standard deviation (unit of the value)',
  'blocks',
  'bound',
  'condition',
  'not measured because',
];

/** The same as a table with a header, RFC 4180; an empty cell is "not measured" or "not known", never zero. */
export function unitCsv(document: UnitExport, style: CsvStyle = 'comma'): string {
  const rows = document.runs.flatMap((run) => [
    ...run.measurements.map((m) => ({ run, step: 'run', m, another: m.anotherReading })),
    ...run.takes.flatMap((take) => take.measurements.map((m) => ({ run, step: take.step, m, another: null }))),
  ]);
  const lines = rows.map(({ run, step, m, another }) => [
    run.date,
    `${run.protocol} ${run.protocolVersion}`,
    step,
    m.quantity,
    quantity(m.quantity).name,
    m.value,
    m.unit,
    m.uncertainty,
    another,
    m.spread?.sd ?? null,
    m.spread?.count ?? null,
    m.bound,
    m.condition,
    m.notMeasured,
  ]);
  return csvText([COLUMNS, ...lines], style);
}
