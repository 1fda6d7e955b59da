import { listed, newLayer, type Effect } from '@jinx/core/document';

/** A step of the tour: what to do, where it is done, and how it is seen that it was. */
export interface TourStep {
  readonly title: string;
  readonly words: string;
  /** The control where it is done; null where it is not there yet. */
  readonly target: () => HTMLElement | null;
  readonly isDone: (effect: Effect, chosenId: string) => boolean;
}
const inChapters = (selector: string) =>
  document.querySelector<HTMLElement>(`[data-guide="bench#chapters"] ${selector}`);
const button = (words: string): HTMLElement | null =>
  [...document.querySelectorAll<HTMLElement>('.bench button')].find(
    ({ textContent }) => textContent.trim() === words,
  ) ?? null;
const AT_FIRST = newLayer('', 0).settings['births.rate'].base;

/** Five steps from an empty stage to motes that leave a body and gather beside it. */
export const TOUR: readonly TourStep[] = [
  {
    title: 'Somebody to make it on',
    words: 'Press Figures, then Sedge of the Fenlight kit, or drop a figure of your own (.glb) on the picture.',
    target: () => document.querySelector<HTMLElement>('.rail [aria-label="Figures"]'),
    isDone: ({ stage }) => stage.things.order.length > 0,
  },
  {
    title: 'A layer',
    words: 'Press Add a layer. It starts as plain soft dots, so that birth and motion can be judged first.',
    target: () => button('Add a layer'),
    isDone: ({ layers }) => layers.order.length > 0,
  },
  {
    title: 'Born on the body',
    words: 'In Source, choose “on a mesh of the stage”. The particles leave her skin from now on.',
    target: () => inChapters('[data-chapter~=source] [aria-label="source"]'),
    isDone: ({ layers }, id) => layers.byId[id]?.source.kind === 'mesh',
  },
  {
    title: 'More of them',
    words: 'Drag the rate, or press it and type 300. Tab goes on to the next number. Ctrl Z takes any step back.',
    target: () => inChapters('[data-address$=":births.rate"]'),
    isDone: ({ layers }, id) => {
      const base = layers.byId[id]?.settings['births.rate'].base;
      return base !== undefined && JSON.stringify(base) !== JSON.stringify(AT_FIRST);
    },
  },
  {
    title: 'A force',
    words:
      'In Motion, press Add a force and choose Attraction: they gather at a place. Drag its handle on the picture.',
    target: () => button('Add a force'),
    isDone: ({ layers }) => listed(layers).some(({ item }) => item.forces.order.length > 0),
  },
];
