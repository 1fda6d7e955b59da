/** A document, or a change to one, that cannot be accepted: what is wrong and where. */
export class DocumentError extends Error {
  readonly path: string;
  constructor(sentence: string, path: string) {
    super(path ? `${sentence} (at ${path})` : sentence);
    this.name = 'DocumentError';
    this.path = path;
  }
}
