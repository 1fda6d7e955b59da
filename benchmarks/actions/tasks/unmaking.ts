import { is, isShaped, layersOf, type Task } from './task.ts';

export const unmaking: Task = {
  id: 'unmaking',
  what: 'the unmaking of a walker',
  before: 87,
  make: async (hand) => {
    await hand.say('bring bogling', 'bogling walk', 'bring tallow');
    // Out of the way, by hand: a metre and a half aside.
    await hand.button('Figures');
    await hand.type(/^stands at, x/, '1.5, 0, 0', 1);
    await hand.button('Figures');
    await hand.say('add soft dots', 'source mesh', 'evenly spread', 'rate 0', 'standing per square metre 500');
    await hand.menu('hold and free them…', 'as a sphere grows');
    await hand.say('front place bogling lamp', 'border 1.3 m over time 0, 100%', 'raggedness 9 cm');
    await hand.say('lifetime 1.6-2.4', 'hold 2.5', 'closing 2', 'along the normal', 'speed 0.1-0.4');
    await hand.say('curl noise strength 2', 'attraction strength 3-5', 'attraction place tallow hand.left 0, 0.3, 0');
    await hand.say('size 2-4 cm', 'colour #5a4632, #e8f070', 'duplicate', 'its inside');
    await hand.say('add a skin over a body', 'front Front', 'in its place', 'glowing edge 3 cm', 'remove rim');
    await hand.choose('whose skin', 'bogling');
    await hand.layer('Dots');
    await hand.layerToo('Dots, copy');
    await hand.say('standing per square metre *8');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const motes = all.filter(({ source }) => source.kind === 'mesh');
    return {
      'skin and inside': motes.length === 2 && motes.some(({ settings }) => is(settings['source.region'], 'volume')),
      'one front': effect.fronts.order.length === 1 && motes.every(({ front }) => front !== null),
      'from the lamp': Object.values(effect.fronts.byId).every(({ place }) => place.kind === 'bone'),
      'it grows': Object.values(effect.fronts.byId).every(({ settings }) => isShaped(settings.border)),
      'eight times as dense': motes.every(({ settings }) => is(settings['births.perArea'], 4000)),
      'drawn over Tallow’s hand': motes.every(({ forces }) =>
        Object.values(forces.byId).some(({ kind, place }) => kind === 'attraction' && place.kind === 'bone'),
      ),
      'the body is cut': all.some(({ drawn }) => drawn.kind === 'body' && drawn.front !== null),
    };
  },
};
