/** The version of the document. */
export const SCHEMA = 12;
