/** A file that cannot be taken in: what is wrong with it, and what to do. */
export class FormatError extends Error {
  constructor(sentence: string) {
    super(sentence);
    this.name = 'FormatError';
  }
}
