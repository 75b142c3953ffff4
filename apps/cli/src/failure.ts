/** Ends the command with a line and an exit code: 1 for a plan that fails, 2 for input that cannot be used. */
export class CommandFailure extends Error {
  constructor(
    readonly code: 1 | 2,
    line: string,
  ) {
    super(line);
  }
}
