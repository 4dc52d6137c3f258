import { latencyBuffers, latencyCells, latencyFigure } from '#core/gear/interface/latency-figures';
import type { Measurement } from '#core/measure/measurement';
import type { UnitFacts } from '#core/rules/criterion-points';
import { roleOf, type Protocol } from '#contracts/protocol';

/** A table that units of a kind were read by: latency, gain by dial, voltages. */
export interface ReadTable {
  /** Protocol and step. */
  readonly key: string;
  readonly title: string;
  readonly unit: string;
  /** Of its step: tables of latencies are read further. */
  readonly role: string;
}

/** A cell of several units. */
export interface SideRow {
  readonly label: string;
  readonly cells: readonly { readonly value: number | null; readonly isOdd: boolean }[];
}

/** Units beside each other, cell by cell. */
export interface SideBySide {
  readonly units: readonly { readonly id: string; readonly name: string }[];
  /** As many as the reading that has most, so that a row can be compared. */
  readonly decimals: number;
  readonly rows: readonly SideRow[];
  /** What is left beyond the buffers, of each unit; null for tables of other things. */
  readonly beyondBuffers: readonly (Measurement | null)[] | null;
}

const MOST_DECIMALS = 3;
const decimalsOf = (value: number): number => String(value).split('.').at(1)?.length ?? 0;

type CellsOf = Pick<UnitFacts, 'id' | 'cells'>;

/** A cell by the name that it has among all cells of a unit: "protocol/step/row/column". */
function cellOf(key: string): { table: string; row: string; column: string } | null {
  const [protocol, step, ...rest] = key.split('/');
  const column = rest.pop();
  return column === undefined || rest.length === 0 ? null : { table: `${protocol}/${step}`, row: rest.join('/'), column }; // prettier-ignore
}

/** Tables that any of the units has, in the order of the steps. */
export function readTables(units: readonly CellsOf[], protocols: readonly Protocol[]): ReadTable[] {
  const there = new Set(units.flatMap((u) => Object.keys(u.cells ?? {}).flatMap((k) => cellOf(k)?.table ?? [])));
  const tables = new Map<string, ReadTable>();
  for (const protocol of [...protocols].sort((a, b) => a.version - b.version))
    for (const step of protocol.steps) {
      const key = `${protocol.id}/${step.id}`;
      if (step.table && there.has(key))
        tables.set(key, { key, title: step.title, unit: step.table.unit, role: roleOf(step) });
    }
  return [...tables.values()];
}

/**
 * Units that were read by a table, cell by cell; a cell that a unit lacks is missing, not zero.
 *
 * @param units - in the order in which they are shown
 * @param nameOf - by the number of a unit
 */
export function sideBySide(table: ReadTable, units: readonly CellsOf[], nameOf: (id: string) => string): SideBySide {
  const read = units.flatMap(({ id, cells = {} }) => {
    const own = Object.entries(cells).flatMap(([key, value]) => {
      const cell = cellOf(key);
      return cell?.table === table.key ? [{ ...cell, value }] : [];
    });
    return own.length === 0 ? [] : [{ id, own }];
  });
  const columns = new Set(read.flatMap((u) => u.own.map((c) => c.column)));
  // Where there is one column, its rows say it all.
  const labelOf = ({ row, column }: { row: string; column: string }): string => columns.size < 2 ? row : `${row}, ${column}`; // prettier-ignore
  const labels = [...new Set(read.flatMap((u) => u.own.map(labelOf)))];
  const buffers = latencyBuffers(table.role);
  const odd = read.map((u) => new Set(buffers ? latencyCells({ cells: asCells(u.own) }, buffers).filter((c) => c.isOdd).map(labelOf) : [])); // prettier-ignore
  return {
    units: read.map(({ id }) => ({ id, name: nameOf(id) })),
    decimals: Math.min(MOST_DECIMALS, Math.max(0, ...read.flatMap((u) => u.own.map((c) => decimalsOf(c.value))))),
    rows: labels.map((label) => ({
      label,
      cells: read.map((u, i) => ({
        value: u.own.find((c) => labelOf(c) === label)?.value ?? null,
        isOdd: odd[i].has(label),
      })),
    })),
    beyondBuffers: buffers ? read.map((u) => latencyFigure({ cells: asCells(u.own) }, table.role).at(0) ?? null) : null,
  };
}

const asCells = (own: readonly { row: string; column: string; value: number }[]) =>
  own.map(({ row, column, value }) => ({ row, column, value }));
