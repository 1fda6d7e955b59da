import { isPlainText } from '@jinx/core/document';
import { z } from 'zod';

/** A name as people give it to a `what`. */
export const nameOf = (what: string) =>
  z
    .string()
    .trim()
    .min(1, `${what} needs a name`)
    .max(80, 'a name has up to 80 letters')
    .refine(isPlainText, 'a name has only characters that can be shown');
