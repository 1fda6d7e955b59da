import { is, isShaped, layersOf, near, numberOf, settingOf, type Task } from './task.ts';

export const dazed: Task = {
  id: 'dazed',
  what: 'a dazed Bogling',
  before: 92,
  make: async (hand) => {
    await hand.bring('bogling');
    await hand.ready('soft dots');
    await hand.choose('source', 'along a ring');
    await hand.choose('source place', 'head');
    await hand.type(/^source place, moved by, x/, '0, 0.22, 0');
    await hand.type(/^source place, turned by, x/, '14, 0, 0');
    await hand.type(/^radius/, '0.24');
    await hand.choose('order', 'evenly spread');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.button('Add a burst');
    await hand.type(/^burst count:/, '6');
    await hand.type(/^burst count at most/, '6');
    await hand.type(/^lifetime/, '5.5');
    await hand.field('hold in seconds', '4.5');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.menu('Add a force', 'Orbit');
    await hand.type(/^orbit, distance/, '0.24');
    await hand.type(/^orbit, speed round/, '2*3.1416*0.24/1.2');
    await hand.type(/^orbit, axis, x/, '0, 1, 0.25');
    await hand.button(/^orbit, grip/);
    await hand.menu('Shape it…', 'by age');
    await hand.shape('falling');
    await hand.pickKey(0);
    await hand.button('held');
    await hand.addKey(0.8);
    await hand.keyValue('0');
    await hand.menu('Add a force', 'Gravity');
    await hand.type(/^gravity, strength/, '-2 to -4');
    await hand.button(/^gravity, strength/);
    await hand.menu('Shape it…', 'by age');
    await hand.pickKey(1);
    await hand.key('Delete');
    await hand.shape('rising');
    await hand.pickKey(0);
    await hand.button('held');
    await hand.addKey(0.8);
    await hand.keyValue('100');
    await hand.chapter('Life');
    await hand.type(/^size/, '14 cm');
    await hand.chapter('Appearance');
    await hand.menu('Add a step', 'Picture');
    await hand.menu('choose a picture…', 'moth');
    await hand.button('Remove Drawn shape');
    await hand.type(/^picture, columns/, '4');
    await hand.type(/^picture, rows/, '2');
    await hand.choose('picture, plays', 'by the clock');
    await hand.type(/^picture, first frame/, '0 to 100');
    await hand.choose('blending', 'covering what is behind');
    await hand.chapter('Source');
    await hand.type(/^radius/, '0.36');
    await hand.chapter('Motion');
    await hand.type(/^orbit, distance/, '0.36');
    await hand.type(/^orbit, speed round/, '2*3.1416*0.36/1.2');
  },
  asked: (effect) => {
    const [layer] = layersOf(effect);
    const { settings, source, bursts, forces } = layer!;
    const orbit = Object.values(forces.byId).find(({ kind }) => kind === 'orbit');
    return {
      'a ring at the head': source.kind === 'ring' && source.place.kind === 'bone',
      leans: source.kind === 'ring' && source.place.turn.some((angle) => angle !== 0),
      six: Object.values(bursts.byId).some(({ count }) => count === 6) || is(settings['births.standing'], 6),
      'half as large again':
        is(settings['source.radius'], 0.36) && near(numberOf(settingOf(orbit, 'distance')), 0.36),
      'they let go': isShaped(settingOf(orbit, 'grip')) || orbit?.muted === true,
      moths: JSON.stringify(layer!.look).includes('moth'),
    };
  },
};
