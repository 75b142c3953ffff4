/** A dense matrix by rows, as plain data: heavy loops run over its numbers directly. */
export interface Dense {
  readonly rows: number;
  readonly columns: number;
  readonly data: Float64Array;
}

/** Makes a matrix from a value for each place. */
export function dense(rows: number, columns: number, valueAt: (row: number, column: number) => number): Dense {
  const data = new Float64Array(rows * columns);
  for (let i = 0, at = 0; i < rows; i += 1) for (let j = 0; j < columns; j += 1, at += 1) data[at] = valueAt(i, j);
  return { rows, columns, data };
}

export const at = (matrix: Dense, row: number, column: number): number =>
  matrix.data[row * matrix.columns + column] as number;

/** A x B'. Both are walked along their rows. */
export function timesTransposed(a: Dense, b: Dense): Dense {
  const [n, m, k] = [a.rows, b.rows, a.columns];
  const data = new Float64Array(n * m);
  const [left, right] = [a.data, b.data];
  for (let i = 0; i < n; i += 1) {
    const row = i * k;
    for (let j = 0; j < m; j += 1) {
      const other = j * k;
      let sum = 0;
      for (let c = 0; c < k; c += 1) sum += (left[row + c] as number) * (right[other + c] as number);
      data[i * m + j] = sum;
    }
  }
  return { rows: n, columns: m, data };
}

/** A matrix times a column. */
export function timesVector({ rows, columns, data }: Dense, vector: ArrayLike<number>): Float64Array {
  const result = new Float64Array(rows);
  for (let i = 0; i < rows; i += 1) {
    let sum = 0;
    for (let j = 0; j < columns; j += 1) sum += (data[i * columns + j] as number) * (vector[j] as number);
    result[i] = sum;
  }
  return result;
}

/** A pivot no smaller than this keeps readings that say the same twice from dividing by nothing. */
const LEAST_PIVOT = 1e-12;

/** The lower triangle L of a symmetric positive definite matrix, A = L L' (Cholesky). */
function lowerOf({ rows: n, data }: Dense): Float64Array {
  const lower = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      let sum = data[i * n + j] as number;
      for (let k = 0; k < j; k += 1) sum -= (lower[i * n + k] as number) * (lower[j * n + k] as number);
      lower[i * n + j] = i === j ? Math.sqrt(Math.max(LEAST_PIVOT, sum)) : sum / (lower[j * n + j] as number);
    }
  }
  return lower;
}

/** The inverse of a symmetric positive definite matrix: A^-1 = L^-1' L^-1. */
export function inverseOf(matrix: Dense): Dense {
  const n = matrix.rows;
  const lower = lowerOf(matrix);
  // L^-1, kept transposed, so that the sums below run along rows
  const turned = new Float64Array(n * n);
  for (let j = 0; j < n; j += 1) {
    turned[j * n + j] = 1 / (lower[j * n + j] as number);
    for (let i = j + 1; i < n; i += 1) {
      let sum = 0;
      for (let k = j; k < i; k += 1) sum -= (lower[i * n + k] as number) * (turned[j * n + k] as number);
      turned[j * n + i] = sum / (lower[i * n + i] as number);
    }
  }
  const data = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = 0;
      for (let k = i; k < n; k += 1) sum += (turned[i * n + k] as number) * (turned[j * n + k] as number);
      data[i * n + j] = sum;
      data[j * n + i] = sum;
    }
  return { rows: n, columns: n, data };
}

/** Natural logarithm of the determinant of a symmetric positive definite matrix. */
export function logDeterminant(matrix: Dense): number {
  const n = matrix.rows;
  const lower = lowerOf(matrix);
  let sum = 0;
  for (let i = 0; i < n; i += 1) sum += 2 * Math.log(lower[i * n + i] as number);
  return sum;
}
