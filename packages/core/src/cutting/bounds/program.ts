/** What a linear or whole-number program came to. */
export interface ProgramResult {
  /** Solved to its optimum. */
  readonly optimal: boolean;
  readonly value: number;
  /** Values of the columns by name; empty when no solution was found. */
  readonly columns: Readonly<Record<string, number>>;
  /** Dual values of the rows by name; empty for whole-number programs. */
  readonly duals: Readonly<Record<string, number>>;
}
/** Solves a program written in the LP text format within some seconds. */
export type SolveProgram = (text: string, seconds: number) => ProgramResult;

/** What is used of the solver. Its own types describe its older form of import only. */
type Load = (options: { readonly locateFile?: () => string }) => Promise<{
  solve(
    text: string,
    options: { readonly output_flag: boolean; readonly time_limit: number },
  ): {
    readonly Status: string;
    readonly ObjectiveValue: number;
    readonly Columns: Readonly<Record<string, { readonly Primal?: number }>>;
    readonly Rows: readonly { readonly Name: string; readonly Dual?: number }[];
  };
}>;

/**
 * Loads the program solver, a library compiled to wasm of which nothing is needed until something is cut.
 * @param wasmUrl where the wasm file is served, in a browser
 */
export async function loadProgram(wasmUrl?: string): Promise<SolveProgram> {
  const { default: load } = (await import('highs')) as unknown as { readonly default: Load };
  const solver = await load(wasmUrl === undefined ? {} : { locateFile: () => wasmUrl });
  return (text, seconds) => {
    const solved = solver.solve(text, { output_flag: false, time_limit: seconds });
    const columns = Object.entries(solved.Columns).flatMap(([name, column]): [string, number][] =>
      column.Primal === undefined ? [] : [[name, column.Primal]],
    );
    const duals = solved.Rows.flatMap((row): [string, number][] =>
      row.Dual === undefined ? [] : [[row.Name, row.Dual]],
    );
    const found = solved.Status === 'Optimal' || solved.Status === 'Time limit reached';
    return {
      optimal: solved.Status === 'Optimal',
      value: solved.ObjectiveValue,
      columns: found ? Object.fromEntries(columns) : {},
      duals: Object.fromEntries(duals),
    };
  };
}
