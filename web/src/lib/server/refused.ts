/** Something asked for that can't be done, in a sentence for the person who asked. */
export class Refused extends Error {
  readonly status: number;
  constructor(status: number, message: string) {
    super(message);
    this.name = 'Refused';
    this.status = status;
  }
}
