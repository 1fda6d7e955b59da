import { DocumentError } from './errors.ts';

/** What a text may be like to be read as JSON: no document of ours comes near these. */
const MOST_DEPTH = 100;
const MOST_STRING = 64 * 1024;
const MOST_LENGTH = 16 * 1024 * 1024;
/** Entries of one list or one record. */
const MOST_ENTRIES = 20_000;
/** Values in all, lists and records among them. */
const MOST_VALUES = 300_000;

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [OPEN_LIST, CLOSE_LIST, OPEN_RECORD, CLOSE_RECORD] = [0x5b, 0x5d, 0x7b, 0x7d];

/** Where the string ends that begins at `start`; the end of the text where it does not. */
function endOfString(text: string, start: number): number {
  for (let end = text.indexOf('"', start + 1); end >= 0; end = text.indexOf('"', end + 1)) {
    let escapes = end - 1;
    while (text.charCodeAt(escapes) === BACKSLASH) escapes--;
    if ((end - 1 - escapes) % 2 === 0) return end;
  }
  return text.length;
}

/**
 * Reads JSON that may come from anywhere. Depth, length of strings and number of values are checked before anything is
 * allocated for them.
 * @throws DocumentError with a code that begins with "json".
 */
export function readJson(text: string, mostString = MOST_STRING): unknown {
  if (text.length > MOST_LENGTH)
    throw new DocumentError(`this text is longer than ${MOST_LENGTH / 1048576} million letters`, '', 'json.long');
  let depth = 0;
  let values = 1;
  /** Commas seen so far in each list or record that is still open. */
  const commas = new Uint32Array(MOST_DEPTH + 1);
  for (let n = 0; n < text.length; n++) {
    switch (text.charCodeAt(n)) {
      case QUOTE: {
        const end = endOfString(text, n);
        if (end - n > mostString)
          throw new DocumentError(`a text in it is longer than ${mostString} letters`, '', 'json.string');
        n = end;
        break;
      }
      case OPEN_LIST:
      case OPEN_RECORD:
        if (++depth > MOST_DEPTH)
          throw new DocumentError(`this nests deeper than ${MOST_DEPTH} levels`, '', 'json.deep');
        commas[depth] = 0;
        values++;
        break;
      case CLOSE_LIST:
      case CLOSE_RECORD:
        if (--depth < 0) throw notJson();
        break;
      case COMMA:
        values++;
        if (++commas[depth]! >= MOST_ENTRIES)
          throw new DocumentError(`a list in it has more than ${MOST_ENTRIES} entries`, '', 'json.list');
    }
    if (values > MOST_VALUES)
      throw new DocumentError(`there are more than ${MOST_VALUES} values in it`, '', 'json.values');
  }
  try {
    return JSON.parse(text);
  } catch {
    throw notJson();
  }
}

const notJson = () => new DocumentError('this is not JSON', '', 'json.none');
