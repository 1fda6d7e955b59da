import { is, isShaped, layersOf, type Task } from './task.ts';

export const breath: Task = {
  id: 'breath',
  what: 'the breath of a well',
  before: 48,
  make: async (hand) => {
    await hand.say(
      'add soft dots',
      'source box',
      'box size 1.5, 0, 0.6',
      'place 0, 0, 0',
      'lifetime 5-7',
      'along an axis',
    );
    await hand.say(
      'size 3-18 cm over age 0, 25% at 50%, 100%',
      'opacity over age 0, 100% at 0.5 s, 100% at -1.5 s, 0',
      'colour #dff4ff, #6fb8c8 at 25%, #1c3a4a',
    );
    await hand.say('rate *3', 'pre-roll 7');
  },
  asked: (effect) => {
    const [layer] = layersOf(effect);
    const { settings, source } = layer!;
    return {
      'a flat oblong': source.kind === 'box' && is(settings['source.size'], [1.5, 0, 0.6]),
      '5 to 7 s': is(settings['births.life'], 5, 7),
      upward: is(settings['motion.launch'], 'axis'),
      '3 to 18 cm': is(settings['life.size'], 0.03, 0.18),
      'keys by seconds': ['afterBirth', 'beforeDeath'].every((anchor) =>
        JSON.stringify(settings['life.opacity'].shapers).includes(anchor),
      ),
      'three colours': (JSON.stringify(settings['life.colour'].shapers).match(/hex/g) ?? []).length === 3,
      'grows all its life': isShaped(settings['life.size']),
      'three times as many': is(settings['births.rate'], 120),
      'there at once': effect.stretches.preRoll >= 5,
    };
  },
};
