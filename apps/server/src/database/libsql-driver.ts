import Libsql from 'libsql';

type Bindable = number | string | bigint | Buffer | null;
interface RunResult {
  readonly changes: number;
  readonly lastInsertRowid: number | bigint;
}

/** Turns a value into one that the driver can bind; anything it cannot bind safely is a TypeError here, not a crash there. */
export function bindable(value: unknown): Bindable {
  if (value === null || value === undefined) return null;
  if (typeof value === 'boolean') return value ? 1 : 0;
  if (typeof value === 'number' || typeof value === 'string' || typeof value === 'bigint') return value;
  if (value instanceof Date) return value.toISOString();
  if (Buffer.isBuffer(value)) return value;
  if (value instanceof Uint8Array) return Buffer.from(value.buffer, value.byteOffset, value.byteLength);
  throw new TypeError(`A ${typeof value} cannot be stored in a column.`);
}

function readable(row: unknown): unknown {
  if (typeof row !== 'object' || row === null) return row;
  return Object.fromEntries(
    Object.entries(row)
      .filter(([name]) => name !== '_metadata')
      .map(([name, value]: [string, unknown]) => [name, value instanceof ArrayBuffer ? Buffer.from(value) : value]),
  );
}

/** A prepared statement whose values are made safe both ways. */
class SafeStatement {
  constructor(private readonly statement: Libsql.Statement) {}

  get reader(): boolean {
    return this.statement.reader;
  }

  /** A lone null is taken for a missing list of values unless the values come as one list. */
  run(...values: unknown[]): RunResult {
    return this.statement.run(values.map(bindable)) as RunResult;
  }

  all(...values: unknown[]): unknown[] {
    return (this.statement.all(values.map(bindable)) as unknown[]).map(readable);
  }

  get(...values: unknown[]): unknown {
    return readable(this.statement.get(values.map(bindable)));
  }
}

/** The shape of SQLite connection that TypeORM's better-sqlite3 type expects, over libsql. */
export class LibsqlDatabase {
  private readonly database: Libsql.Database;

  constructor(path: string, options: { readonly timeout?: number } = {}) {
    this.database = new Libsql(path, { timeout: options.timeout ?? 5000 });
  }

  prepare(sql: string): SafeStatement {
    return new SafeStatement(this.database.prepare(sql));
  }

  exec(sql: string): this {
    this.database.exec(sql);
    return this;
  }

  pragma(text: string): unknown[] {
    const statement = this.database.prepare(`PRAGMA ${text}`);
    return statement.reader ? (statement.all([]) as unknown[]).map(readable) : [statement.run([])];
  }

  /** A connection is only let go for good when its statements are collected: what is open on it is taken back first. */
  close(): void {
    try {
      if (this.database.inTransaction) this.database.exec('ROLLBACK');
    } catch {
      // the connection cannot even take back: whoever opens the file next is told that it is locked
    }
    this.database.close();
  }
}
