import { is, layersOf, numberOf, type Task } from './task.ts';

export const pull: Task = {
  id: 'pull',
  what: 'the pull of the Drowned Door',
  before: 71,
  make: async (hand) => {
    await hand.say(
      'add ribbons that fly',
      'source ring',
      'place 0, 1.2, 0',
      'turn 90, 0, 0',
      'radius 1.1 m',
      'rate 70',
    );
    await hand.say('lifetime 0.4-0.7', 'launch outward', 'speed -1.6 to -1', 'velocity beside 0, 0, -0.6');
    await hand.say(
      'remove gravity',
      'remove drag',
      'size 3-5 cm',
      'colour #c8fff0, #2a8a90',
      'bulge 140',
      'lasts 0.5',
    );
    await hand.say('gradient along along', 'rate 24', 'duplicate', 'rate 23', 'colour #a0c8ff, #2a8a90');
    await hand.say('duplicate', 'colour #e8fff8, #2a8a90');
    await hand.layer('Ribbons');
    await hand.say('curl noise strength 2.5');
    await hand.menu('acts on others too…', 'every layer');
    await hand.say('mute curl noise');
    await hand.say('unmute curl noise');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const own = all[all.length - 1]!;
    const forces = [
      ...Object.values(effect.forces.byId).map(({ force }) => force),
      ...Object.values(own.forces.byId),
    ];
    return {
      'a standing ring': own.source.kind === 'ring' && own.source.place.turn[0] === 90,
      '1.1 m': is(own.settings['source.radius'], 1.1),
      inward: JSON.stringify(own.settings['motion.speed'].base).includes('-'),
      trails: own.drawn.kind === 'trail',
      '70 a second': all.reduce((sum, { settings }) => sum + numberOf(settings['births.rate']), 0) === 70,
      'curl noise': forces.some(({ kind }) => kind === 'curl'),
    };
  },
};
