/**
 * The assignment of rows to columns with the smallest total cost (Kuhn 1955, in the form with potentials that needs
 * O(rows²·columns) steps). Ties go to the earlier column.
 *
 * @param cost - one list per row, equally long, at least as many columns as rows; Infinity is not allowed
 * @returns the column of each row
 */
export function assign(cost: readonly (readonly number[])[]): number[] {
  const rows = cost.length;
  if (rows === 0) return [];
  const columns = cost[0].length;
  if (columns < rows) throw new RangeError('An assignment needs at least as many columns as rows.');
  // Index 0 of rows and columns stands for "none", as in the usual statement of the method.
  const rowPotential = new Float64Array(rows + 1);
  const columnPotential = new Float64Array(columns + 1);
  const rowOf = new Int32Array(columns + 1);
  const before = new Int32Array(columns + 1);
  for (let row = 1; row <= rows; row++) {
    const least = new Float64Array(columns + 1).fill(Infinity);
    const isUsed = new Uint8Array(columns + 1);
    let column = 0;
    rowOf[0] = row;
    do {
      isUsed[column] = 1;
      const current = rowOf[column];
      let step = Infinity;
      let next = 0;
      for (let c = 1; c <= columns; c++) {
        if (isUsed[c]) continue;
        const reduced = cost[current - 1][c - 1] - rowPotential[current] - columnPotential[c];
        if (reduced < least[c]) {
          least[c] = reduced;
          before[c] = column;
        }
        if (least[c] < step) {
          step = least[c];
          next = c;
        }
      }
      for (let c = 0; c <= columns; c++) {
        if (isUsed[c]) {
          rowPotential[rowOf[c]] += step;
          columnPotential[c] -= step;
        } else least[c] -= step;
      }
      column = next;
    } while (rowOf[column] !== 0);
    for (; column !== 0; column = before[column]) rowOf[column] = rowOf[before[column]];
  }
  const columnOf = new Array<number>(rows).fill(-1);
  for (let c = 1; c <= columns; c++) if (rowOf[c] > 0) columnOf[rowOf[c] - 1] = c - 1;
  return columnOf;
}
