import { is, layersOf, near, numberOf, settingOf, type Task } from './task.ts';

export const seeds: Task = {
  id: 'seeds',
  what: 'thrown seeds',
  before: 57,
  make: async (hand) => {
    await hand.ready('sparks');
    await hand.chapter('Births');
    await hand.type(/^rate/, '12');
    await hand.type(/^lifetime/, '2.5 to 3.5');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along an axis');
    await hand.type(/^speed/, '2 to 3.5');
    await hand.type(/^opening angle/, '50');
    await hand.type(/^velocity beside, x/, '0.4, 0, 0.2');
    await hand.menu('Add a surface', 'Ground');
    await hand.type(/^ground, bounce/, '15');
    await hand.type(/^ground, friction/, '80');
    await hand.chapter('Life');
    await hand.type(/^size/, '3 to 5 cm');
    await hand.chapter('Appearance');
    await hand.choose('blending', 'covering what is behind');
    await hand.ready('ribbons that fly');
    await hand.chapter('Links');
    await hand.choose('population', 'those of Sparks');
    await hand.chapter('Life');
    await hand.type(/^size/, '1 cm');
    await hand.chapter('Appearance');
    await hand.type(/^point every/, '2 cm');
    await hand.type(/^or every/, '0');
    await hand.type(/^lasts/, '1.2');
    await hand.row('Sparks');
    await hand.rowToo('Ribbons');
    await hand.button('Duplicate');
    await hand.row('Ribbons, copy');
    await hand.chapter('Links');
    await hand.choose('population', 'those of Sparks, copy');
    await hand.chapter('Appearance');
    await hand.type(/^lasts/, '2.4');
    await hand.row('Sparks, copy');
    await hand.chapter('Births');
    await hand.type(/^rate/, '6');
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
