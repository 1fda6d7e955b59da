/** Text that is the same for equal documents: keys sorted, no spaces, −0 written as 0. */
export const canonicalText = (value: unknown): string => textOf(value, canonicalText);

function textOf(value: unknown, textOfPart: (part: unknown) => string): string {
  if (typeof value === 'number') return JSON.stringify(value === 0 ? 0 : value);
  if (Array.isArray(value)) return `[${value.map(textOfPart).join(',')}]`;
  if (typeof value === 'object' && value !== null) {
    const fields = Object.entries(value).filter(([, field]) => field !== undefined);
    fields.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
    return `{${fields.map(([key, field]) => `${JSON.stringify(key)}:${textOfPart(field)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

/** Parts whose text is shorter than this are written quicker than they are looked up; longer ones would be kept many times over. */
const WORTH_KEEPING = [400, 60_000] as const;

/**
 * The same text for versions of a document that are never written into in place: what two of them share is written once.
 */
export class CanonicalTexts {
  readonly #texts = new WeakMap<object, string>();

  of(value: unknown): string {
    if (typeof value !== 'object' || value === null) return canonicalText(value);
    const known = this.#texts.get(value);
    if (known !== undefined) return known;
    const text = textOf(value, (part) => this.of(part));
    if (text.length >= WORTH_KEEPING[0] && text.length <= WORTH_KEEPING[1]) this.#texts.set(value, text);
    return text;
  }
}
