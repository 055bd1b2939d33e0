/** A database that cannot be used, with what to do about it. */
export class DatabaseProblem extends Error {
  constructor(
    message: string,
    readonly fix: string,
  ) {
    super(message);
    this.name = 'DatabaseProblem';
  }
}
