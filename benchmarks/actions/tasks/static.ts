import { is, isShaped, layersOf, settingOf, type Task } from './task.ts';

export const wetStatic: Task = {
  id: 'static',
  what: 'static on wet cloth',
  before: 88,
  make: async (hand) => {
    await hand.say(
      'bring sedge',
      'clip walk',
      'add soft dots',
      'rate 0',
      'standing 1',
      'size 1.2 cm',
      'colour #bfe4ff',
    );
    await hand.say('intensity 3', 'drawn as beams', 'from upper arm.left', 'to hand.left', 'jaggedness 6 cm');
    await hand.say('size of the jags 8 cm', 'strikes anew 10', 'duplicate', 'from upper arm.right', 'to hand.right');
    await hand.say('duplicate', 'from chest', 'to forearm.left');
    await hand.say('add soft dots', 'source mesh', 'lifetime 0.12-0.25', 'speed 0', 'starting angle -180 to 180');
    await hand.say('size 6-12 cm over age 100%, 70%, 45%, 25%', 'shape star', 'drawn shape points 7');
    await hand.say('add a glow', "place sedge's feet 0, 0.1, 0", 'colour #9fd8ff', 'add a light');
    await hand.say('noon');
    await hand.say('dusk');
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
