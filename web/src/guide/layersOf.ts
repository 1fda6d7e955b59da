/** A layer of a starting point: why it is there, and what fails without it. */
export interface TaughtLayer {
  readonly name: string;
  readonly why: string;
  readonly without: string;
}

const LINE = /^- \*\*(.+?)\*\*: (.+?) Without it: (.+)$/gm;

/** The layers that a page of a starting point tells of, in the order in which it does. */
export const layersOf = (text: string): TaughtLayer[] =>
  [...text.matchAll(LINE)].map(([, name, why, without]) => ({ name: name!, why: why!, without: without! }));

/** The page without its list of layers, which is shown otherwise. */
export const withoutLayers = (text: string): string => text.replace(/^## Layers$[\s\S]*$/m, '').trim();
