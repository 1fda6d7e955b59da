import { is, isShaped, layersOf, settingOf, type Task } from './task.ts';

export const wetStatic: Task = {
  id: 'static',
  what: 'static on wet cloth',
  before: 88,
  make: async (hand) => {
    await hand.bring('sedge');
    await hand.choose('clip', 'walk');
    await hand.ready('soft dots');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^standing/, '1');
    await hand.chapter('Life');
    await hand.type(/^size/, '1.2 cm');
    await hand.colour('colour', '#bfe4ff');
    await hand.type(/^intensity/, '3');
    await hand.chapter('Appearance');
    await hand.choose('drawn as', 'beams');
    await hand.choose('ribbon, from', 'upper arm.left');
    await hand.choose('ribbon, to', 'hand.left');
    await hand.type(/^jaggedness/, '6 cm');
    await hand.type(/^size of the jags/, '8 cm');
    await hand.type(/^strikes anew/, '10');
    await hand.button('Duplicate');
    await hand.choose('ribbon, from', 'upper arm.right');
    await hand.choose('ribbon, to', 'hand.right');
    await hand.button('Duplicate');
    await hand.choose('ribbon, from', 'chest');
    await hand.choose('ribbon, to', 'forearm.left');
    await hand.ready('soft dots');
    await hand.chapter('Source');
    await hand.choose('source', 'on a mesh of the stage');
    await hand.chapter('Births');
    await hand.type(/^lifetime/, '0.12 to 0.25');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.chapter('Life');
    await hand.type(/^size/, '6 to 12 cm');
    await hand.type(/^starting angle/, '-180 to 180');
    await hand.shape('falling');
    await hand.addKey(0.25);
    await hand.keyValue('70');
    await hand.addKey(0.5);
    await hand.keyValue('45');
    await hand.addKey(0.75);
    await hand.keyValue('25');
    await hand.key('Control+a');
    await hand.button('held');
    await hand.chapter('Appearance');
    await hand.choose('drawn shape, shape', 'star');
    await hand.type(/^drawn shape, points/, '7');
    await hand.ready('a glow');
    await hand.chapter('Source');
    await hand.choose('source place', "sedge's feet");
    await hand.type(/^source place, moved by, x/, '0, 0.1, 0');
    await hand.chapter('Life');
    await hand.colour('colour', '#9fd8ff');
    await hand.ready('a light');
    await hand.button('Noon');
    await hand.button('Dusk');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const beams = all.filter(({ drawn }) => drawn.kind === 'beam');
    const flashes = all.find(({ source }) => source.kind === 'mesh');
    return {
      'bolts between bones':
        beams.length === 3 && beams.every(({ drawn }) => 'from' in drawn && drawn.from.kind === 'bone'),
      'struck again ten times a second': beams.every(({ drawn }) => is(settingOf(drawn, 'strikes'), 10)),
      'sprites on her skin': flashes !== undefined,
      'left behind': is(flashes?.settings['motion.ride'], 0),
      'at random turns': is(flashes?.settings['life.angle'], -180, 180),
      'four sizes': flashes !== undefined && isShaped(flashes.settings['life.size']),
      'a light': all.some(({ drawn }) => drawn.kind === 'light'),
    };
  },
};
