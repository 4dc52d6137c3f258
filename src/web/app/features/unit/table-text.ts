import type { Run } from '#contracts/specimen';
import { formatNumber } from '../../ui/format';

type FilledTable = Run['tables'][number];

/** Decimals of a reading from a recording: more would be noise. */
const MEASURED_DECIMALS = 2;
/** Most decimals that anybody types. */
const TYPED_DECIMALS = 4;

/** What stands in the cells of a table, and where it comes from. */
export function tableCaption({
  title,
  cell,
  unit,
  cells,
}: Pick<FilledTable, 'title' | 'cell' | 'unit' | 'cells'>): string {
  const measured = cells.filter((c) => c.source === 'measured').length;
  const what = [`${title}: ${cell}`, ...(unit === '' ? [] : [unit])].join(', ');
  if (measured === 0) return `${what}; typed in`;
  if (measured === cells.length) return `${what}; read from recordings`;
  return `${what}; ${measured} of ${cells.length} read from recordings, the others typed in`;
}

/** A cell with the decimals that were typed, or those that a recording is good for. */
export function cellText({ value, source }: Pick<FilledTable['cells'][number], 'value' | 'source'>): string {
  if (source === 'measured') return formatNumber(value, MEASURED_DECIMALS);
  const decimals = String(Number(value.toFixed(TYPED_DECIMALS))).split('.')[1]?.length ?? 0;
  return formatNumber(value, decimals);
}
