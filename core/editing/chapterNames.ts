/** The chapters of a layer, in their order. */
export const CHAPTERS = ['source', 'births', 'motion', 'life', 'appearance', 'links'] as const;
export type ChapterName = (typeof CHAPTERS)[number];
