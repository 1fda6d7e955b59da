/** A document, or a change to one, that cannot be accepted: what is wrong and where. */
export class DocumentError extends Error {
  readonly path: string;
  /** For programs: what kind of thing is wrong. */
  readonly code: string;
  constructor(sentence: string, path: string, code = 'document') {
    super(path ? `${sentence} (at ${path})` : sentence);
    this.name = 'DocumentError';
    this.path = path;
    this.code = code;
  }
}
