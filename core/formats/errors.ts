/** A file that cannot be taken in: what is wrong with it, and what to do. */
export class FormatError extends Error {
  /** For programs: what kind of thing is wrong, as in "parcel.hash". */
  readonly code: string;
  constructor(code: string, sentence: string) {
    super(sentence);
    this.name = 'FormatError';
    this.code = code;
  }
}
