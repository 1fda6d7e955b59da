import { is, layersOf, near, numberOf, settingOf, type Task } from './task.ts';

export const seeds: Task = {
  id: 'seeds',
  what: 'thrown seeds',
  before: 57,
  make: async (hand) => {
    await hand.say('add sparks', 'rate 12', 'lifetime 2.5-3.5', 'along an axis', 'speed 2-3.5', 'opening angle 50');
    await hand.say('velocity beside 0.4, 0, 0.2', 'meet ground', 'ground bounce 15', 'ground friction 80');
    await hand.say('size 3-5 cm', 'normal', 'add ribbons that fly', 'follow Sparks', 'size 1 cm', 'point every 2 cm');
    await hand.say('or every 0', 'lasts 1.2');
    await hand.layer('Sparks');
    await hand.layerToo('Ribbons');
    await hand.button('Duplicate');
    await hand.layer('Ribbons, copy');
    await hand.say('follow Sparks, copy', 'lasts *2');
    await hand.layer('Sparks, copy');
    await hand.say('rate /2');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const bands = all.filter(({ drawn }) => drawn.kind === 'trail');
    const rates = all
      .filter(({ drawn }) => drawn.kind !== 'trail')
      .map(({ settings }) => numberOf(settings['births.rate']));
    const lasts = bands.map(({ drawn }) => numberOf(settingOf(drawn, 'lasts')));
    return {
      'thrown in a wide cone': all.some(({ settings }) => is(settings['motion.opening'], 50)),
      'they fall back and lie': effect.surfaces.order.length > 0,
      'a band of each': bands.length === 2 && bands.every(({ population }) => population.kind === 'follows'),
      'laid every 2 cm': bands.every(({ drawn }) => is(settingOf(drawn, 'every'), 0.02)),
      'half the seeds': near(Math.min(...rates) * 2, Math.max(...rates)),
      'twice as long': near(Math.min(...lasts) * 2, Math.max(...lasts)),
    };
  },
};
