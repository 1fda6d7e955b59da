/** Whether a text holds only characters that can be stored and shown: no NUL, and no half of a surrogate pair. */
export const isPlainText = (text: string): boolean => !/\0|[\ud800-\udfff]/u.test(text);
