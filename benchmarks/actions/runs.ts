import type { Hand } from './hand.ts';

/** An effect made through the interface alone, from an empty one. */
export interface Run {
  readonly id: string;
  readonly what: string;
  /** Actions that it may take: about a third of what is spent on such an effect today. */
  readonly target: number;
  readonly make: (hand: Hand) => Promise<void>;
}

export const RUNS: readonly Run[] = [
  {
    id: 'flame',
    what: 'a lantern’s flame',
    target: 12,
    make: async (hand) => {
      await hand.bring('tallow');
      await hand.ready('a flame');
      await hand.choose('source place', 'lamp');
      await hand.ready('a light');
      await hand.ready('sparks');
      await hand.chapter('Births');
      await hand.type(/^rate/, '8');
    },
  },
  {
    id: 'mantle',
    what: 'a mantle',
    target: 18,
    make: async (hand) => {
      await hand.bring('sedge');
      await hand.ready('soft dots');
      await hand.choose('source', 'on a mesh of the stage');
      await hand.chapter('Births');
      await hand.type(/^rate/, '600');
      await hand.chapter('Motion');
      await hand.menu('Add a force', 'Attraction');
      await hand.menu('Add a force', 'Vortex');
      await hand.ready('a skin over a body');
      await hand.ready('a mark on the ground');
    },
  },
  {
    id: 'ribbons',
    what: 'ribbons behind thrown sparks',
    target: 20,
    make: async (hand) => {
      await hand.ready('sparks');
      await hand.chapter('Births');
      await hand.type(/^rate/, '20');
      await hand.chapter('Motion');
      await hand.type(/^speed/, '2 – 4');
      await hand.ready('ribbons that fly');
      await hand.chapter('Links');
      await hand.choose('population', 'those of Sparks');
    },
  },
  {
    id: 'wreath',
    what: 'a wreath circling a head',
    target: 15,
    make: async (hand) => {
      await hand.bring('bogling');
      await hand.ready('soft dots');
      await hand.choose('source', 'along a ring');
      await hand.choose('source place', 'head');
      await hand.type(/^radius/, '0.35');
      await hand.chapter('Motion');
      await hand.menu('Add a force', 'Orbit');
      await hand.button('Let it leave without speed');
      await hand.chapter('Life');
      await hand.type(/^size/, '3 – 8 cm');
      await hand.ready('a glow');
    },
  },
  {
    id: 'sigil',
    what: 'a written sigil whose layers set each other off',
    target: 25,
    make: async (hand) => {
      await hand.ready('sparks');
      await hand.chapter('Births');
      await hand.type(/^rate/, '0');
      await hand.ready('a line that is written');
      await hand.chapter('Links');
      await hand.menu('Set off…', 'Sparks');
      await hand.choose('link to Sparks, when', 'is born');
      await hand.button('Duplicate');
      await hand.chapter('Source');
      await hand.type(/^source place, turned by, y/, '45');
      await hand.chapter('Births');
      await hand.choose('births begin, after', 'Line’s last birth');
      await hand.choose('births end, after', 'Line’s last birth');
      await hand.ready('a mark on the ground');
    },
  },
  {
    id: 'blades',
    what: 'a sweep of several blades',
    target: 35,
    make: async (hand) => {
      await hand.bring('sedge');
      await hand.choose('clip', 'sweep');
      await hand.ready('the sweep of a blade');
      await hand.button('Duplicate');
      await hand.chapter('Births');
      await hand.type(/^burst time/, '0.3');
      await hand.button('Duplicate');
      await hand.type(/^burst time/, '0.4');
      await hand.ready('sparks');
      await hand.type(/^rate/, '0');
      await hand.button('Add a burst');
    },
  },
  {
    id: 'smoke',
    what: 'dissolving smoke',
    target: 25,
    make: async (hand) => {
      await hand.ready('smoke');
      await hand.chapter('Appearance');
      await hand.choose('drawn as', 'meshes');
      await hand.menu('Choose a mesh', 'puff');
      await hand.menu('Add a step', 'Dissolve');
      await hand.type(/^dissolve, amount/, '100');
      await hand.button(/^dissolve, amount/);
      await hand.menu('Shape it…', 'by age');
      await hand.ready('sparks');
      await hand.chapter('Births');
      await hand.type(/^rate/, '0');
      await hand.layer('Smoke');
      await hand.chapter('Links');
      await hand.menu('Set off…', 'Sparks');
    },
  },
];
