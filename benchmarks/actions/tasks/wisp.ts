import { is, isShaped, layersOf, near, type Task } from './task.ts';

export const wisp: Task = {
  id: 'wisp',
  what: 'a wisp on a reed',
  before: 44,
  make: async (hand) => {
    await hand.bring('sedge');
    await hand.choose('clip', 'walk');
    await hand.ready('a flame');
    await hand.choose('source place', 'blade');
    await hand.type(/^source place, moved by, x/, '0, 0.87, 0');
    await hand.type(/^radius/, '2 cm');
    await hand.chapter('Births');
    await hand.type(/^rate/, '35');
    await hand.type(/^lifetime/, '0.7 to 0.9');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0.2 to 0.35');
    await hand.type(/^opening angle/, '0');
    await hand.button('Remove Curl noise');
    await hand.chapter('Life');
    await hand.type(/^size/, '0.3 to 0.36 m');
    await hand.pickKey(1);
    await hand.keyPlace('33');
    await hand.pickStop(0);
    await hand.stopColour('#b8f0c8');
    await hand.pickStop(2);
    await hand.stopColour('#0a5a5e');
    await hand.pickStop(1);
    await hand.key('Delete');
    await hand.chapter('Appearance');
    await hand.choose('blending', 'adding its light');
    await hand.button('Remove Gradient');
    await hand.button('Whole effect');
    await hand.type(/^times as large/, '2/3');
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
