import { DocumentError } from './errors.ts';

/** What a text may be like to be read as JSON: no document of ours comes near these. */
const MOST_DEPTH = 100;
const MOST_STRING = 64 * 1024;
const MOST_LENGTH = 16 * 1024 * 1024;

/**
 * Reads JSON that may come from anywhere: how deep it nests and how long its strings are is seen before anything is made
 * of it.
 * @throws DocumentError with a code that begins with "json".
 */
export function readJson(text: string, mostString = MOST_STRING): unknown {
  if (text.length > MOST_LENGTH)
    throw new DocumentError(`this text is longer than ${MOST_LENGTH / 1048576} million letters`, '', 'json.long');
  let depth = 0;
  let stringFrom = -1;
  for (let n = 0; n < text.length; n++) {
    const letter = text[n];
    if (stringFrom >= 0) {
      if (letter === '\\') n++;
      else if (letter === '"') stringFrom = -1;
      else if (n - stringFrom > mostString)
        throw new DocumentError(`a text in it is longer than ${mostString} letters`, '', 'json.string');
    } else if (letter === '"') stringFrom = n;
    else if (letter === '[' || letter === '{') {
      if (++depth > MOST_DEPTH)
        throw new DocumentError(`this nests deeper than ${MOST_DEPTH} levels`, '', 'json.deep');
    } else if (letter === ']' || letter === '}') depth--;
  }
  try {
    return JSON.parse(text);
  } catch {
    throw new DocumentError('this is not JSON', '', 'json.none');
  }
}
