import { is, layersOf, numberOf, type Task } from './task.ts';

export const pull: Task = {
  id: 'pull',
  what: 'the pull of the Drowned Door',
  before: 71,
  make: async (hand) => {
    await hand.ready('ribbons that fly');
    await hand.choose('source', 'along a ring');
    await hand.type(/^source place, moved by, x/, '0, 1.2, 0');
    await hand.type(/^source place, turned by, x/, '90, 0, 0');
    await hand.type(/^radius/, '1.1 m');
    await hand.chapter('Births');
    await hand.type(/^rate/, '70');
    await hand.type(/^lifetime/, '0.4 to 0.7');
    await hand.chapter('Motion');
    await hand.choose('launch', 'outward');
    await hand.type(/^speed/, '-1.6 to -1');
    await hand.type(/^velocity beside, x/, '0, 0, -0.6');
    await hand.button('Remove Gravity');
    await hand.button('Remove Drag');
    await hand.chapter('Life');
    await hand.type(/^size/, '3 to 5 cm');
    await hand.pickStop(0);
    await hand.stopColour('#c8fff0');
    await hand.pickStop(1);
    await hand.stopColour('#2a8a90');
    await hand.chapter('Appearance');
    await hand.type(/^width at the head/, '100');
    await hand.type(/^bulge/, '140');
    await hand.type(/^lasts/, '0.5');
    await hand.button('Remove Gradient');
    await hand.menu('Add a step', 'Gradient');
    await hand.choose('gradient, along', 'along');
    await hand.button('Duplicate');
    await hand.chapter('Life');
    await hand.pickStop(0);
    await hand.stopColour('#a0c8ff');
    await hand.chapter('Births');
    await hand.type(/^rate/, '23');
    await hand.button('Duplicate');
    await hand.chapter('Life');
    await hand.pickStop(0);
    await hand.stopColour('#e8fff8');
    await hand.row('Ribbons');
    await hand.chapter('Births');
    await hand.type(/^rate/, '24');
    await hand.chapter('Motion');
    await hand.menu('Add a force', 'Curl noise');
    await hand.type(/^curl noise, strength/, '2.5');
    await hand.menu('acts on others too…', 'every layer');
    await hand.button('mute', 0);
    await hand.button('unmute', 0);
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
