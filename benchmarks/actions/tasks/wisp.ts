import { is, isShaped, layersOf, near, type Task } from './task.ts';

export const wisp: Task = {
  id: 'wisp',
  what: 'a wisp on a reed',
  before: 44,
  make: async (hand) => {
    await hand.say('bring sedge', 'clip walk', 'add a flame', 'place blade 0, 0.87, 0', 'radius 2 cm', 'rate 35');
    await hand.say(
      'lifetime 0.7-0.9',
      'speed 0.2-0.35',
      'opening angle 0',
      'size 0.3-0.36 m over age 55%, 100% at 33%, 28%',
      'colour #b8f0c8, #0a5a5e',
      'additive',
      'remove curl noise',
      'remove gradient',
    );
    await hand.say('times as large 2/3');
  },
  asked: (effect) => {
    const [layer] = layersOf(effect);
    const { settings } = layer!;
    const size = settings['life.size'].base;
    return {
      'on the blade': 'place' in layer!.source && layer!.source.place.kind === 'bone',
      '35 a second': is(settings['births.rate'], 35),
      '0.7 to 0.9 s': is(settings['births.life'], 0.7, 0.9),
      'straight up': is(settings['motion.opening'], 0),
      'a third smaller': size.kind === 'spread' && near(size.high, 0.24),
      'over age': isShaped(settings['life.size']) && isShaped(settings['life.colour']),
      additive: is(settings['appearance.blend'], 'additive'),
      'leans against the walk': !is(settings['motion.ride'], 100),
    };
  },
};
