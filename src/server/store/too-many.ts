/** A write would work out more than it may while others wait: it is to be planned beside them. */
export class TooManyForOneWrite extends Error {
  constructor(readonly entries: number) {
    super(`${entries} entries are too many for one write`);
    this.name = 'TooManyForOneWrite';
  }
}
