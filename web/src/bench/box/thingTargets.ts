import type { Id, Thing } from '@jinx/core/document';
import { readNumber, within } from '../entry/numbers';
import type { Act, Target, Tools } from './target';
import { METRES, readVector } from './values';

interface Standing {
  readonly id: Id;
  readonly item: Thing;
}
const DEGREES = { least: -360, most: 360, unit: '°' };

const changeThing = (id: Id, label: string, recipe: (thing: Thing) => void): Act['run'] => {
  return ({ change }: Tools) =>
    change(label, (draft) => {
      const thing = draft.stage.things.byId[id];
      if (thing) recipe(thing);
    });
};

/** What the figures of the stage do, by the names of their clips. */
const clipTargets = (things: readonly Standing[], clipsOf: (thing: Id) => readonly string[]): Target[] =>
  things.flatMap(({ id, item }) =>
    clipsOf(id).map((clip): Target => ({
      id: `clip ${id} ${clip}`,
      text: `${item.name}: ${clip}`,
      otherWords: [`clip ${clip}`, clip, `animation ${clip}`, `${item.name} ${clip}`],
      detail: 'a clip',
      previews: true,
      run: changeThing(id, 'choose the clip', (thing) => (thing.clip = clip)),
    })),
  );

/** Where the figures and props of the stage stand, and which way they face. */
const standTargets = (things: readonly Standing[]): Target[] =>
  things.flatMap(({ id, item }): Target[] => [
    {
      id: `stands ${id}`,
      text: `${item.name} stands at`,
      otherWords: [`move ${item.name}`, `position of ${item.name}`],
      detail: 'on the stage',
      run: ({ focus }) => focus(item.name),
      take: (text) => {
        const at = readVector(text, { name: 'the place', ...METRES });
        return {
          text: `${item.name} stands at ${at.join(', ')} m`,
          run: changeThing(id, 'move a thing', (thing) => (thing.at = at)),
        };
      },
    },
    {
      id: `turned ${id}`,
      text: `${item.name} turned by`,
      otherWords: [`${item.name} faces`, `turn ${item.name}`, `rotation of ${item.name}`],
      detail: 'on the stage',
      help: 'Degrees round the vertical; 0 faces along +Z.',
      run: ({ focus }) => focus(item.name),
      take: (text) => {
        const facing = within(readNumber(text, { unit: '°' }), { name: 'the turn', ...DEGREES });
        return {
          text: `${item.name} turned by ${facing}°`,
          run: changeThing(id, 'turn a thing', (thing) => (thing.facing = facing)),
        };
      },
    },
  ]);

/** The figures and props of the stage: where they stand, which way they face, what they do. */
export const thingTargets = (things: readonly Standing[], clipsOf: (thing: Id) => readonly string[]): Target[] => [
  ...standTargets(things),
  ...clipTargets(things, clipsOf),
];
