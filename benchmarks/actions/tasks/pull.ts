import { is, isShaped, layersOf, numberOf, settingOf, type Task } from './task.ts';

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
      'colour one of #c8fff0, #a0c8ff, #2a8a90',
      'width along it over length 15%, 100% at 15%, 0',
      'opacity along it over length 100%, 0',
      'lasts 0.5',
    );
    await hand.say('curl noise strength 2.5');
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
      'trails that run out to nothing': own.drawn.kind === 'trail' && isShaped(settingOf(own.drawn, 'width')),
      'opacity along them': own.drawn.kind === 'trail' && isShaped(settingOf(own.drawn, 'opacity')),
      'one of three colours': JSON.stringify(own.settings['life.colour'].base).split('value":{').length === 4,
      '70 a second': all.reduce((sum, { settings }) => sum + numberOf(settings['births.rate']), 0) === 70,
      'curl noise': forces.some(({ kind }) => kind === 'curl'),
    };
  },
};
