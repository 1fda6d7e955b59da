import { DocumentError } from '../../document/index.ts';
import { FormatError } from '../errors.ts';

/** What a text of a parcel says; its own errors are told as the parcel's. @throws FormatError */
export function textIn<T>(bytes: Uint8Array, what: string, read: (text: string) => T): T {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new FormatError('parcel.letters', `the ${what} in this parcel is no text`);
  }
  try {
    return read(text);
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    throw new FormatError(`${what}.${error.code}`, `the ${what} in this parcel cannot be used: ${error.message}`);
  }
}
