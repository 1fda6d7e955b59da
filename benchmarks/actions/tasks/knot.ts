import { is, isShaped, layersOf, settingOf, type Task } from './task.ts';

export const knot: Task = {
  id: 'knot',
  what: 'a knot of peat',
  before: 124,
  make: async (hand) => {
    await hand.say('bring sedge', 'add soft dots', 'radius 0.7 m', 'rate 250', 'lifetime 2-3', 'speed 0');
    await hand.say(
      'attraction toward line',
      'attraction strength 6',
      'vortex spin 5',
      'vortex lift 3 over stretch 0, 100%',
    );
    await hand.say('swirl size 0.8 m', 'add curl noise', 'drag strength 0.5-1.5', 'size 6-14 cm', 'mesh reed');
    await hand.type(/^curl noise, swirl size/, '12 cm', 1);
    await hand.say('facing along its motion', 'solid', 'lit as a card');
    await hand.say('rate *10');
    // Three numbers and a colour brought out.
    await hand.say('expose rate', 'expose vortex spin', 'expose attraction strength', 'name a colour Peat #5a4a36');
    await hand.say('expose Peat', 'colour Peat');
    // The ball in the middle.
    await hand.say(
      'add soft dots',
      'source point',
      'rate 0',
      'standing 1',
      'speed 0',
      'size 50 cm',
      'colour #4a3626',
    );
    await hand.say('shape disc', 'lit as a small ball', 'solid', 'rim colour #5fd06a', 'expose rim intensity');
    // A light inside, fog, dusk.
    await hand.say('add a light', 'colour #6fe08a', 'fog 4');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const forces = all.flatMap((layer) => Object.values(layer.forces.byId));
    return {
      'drawn to a line': forces.some(
        (force) => force.kind === 'attraction' && is(settingOf(force, 'toward'), 'line'),
      ),
      'a vortex whose lift changes': forces.some(
        (force) => force.kind === 'vortex' && isShaped(settingOf(force, 'lift')),
      ),
      'two curl noises': forces.filter(({ kind }) => kind === 'curl').length === 2,
      'drag spread': forces.some(
        (force) => force.kind === 'drag' && settingOf(force, 'strength')?.base.kind === 'spread',
      ),
      '2,500 a second': all.some(({ settings }) => is(settings['births.rate'], 2500)),
      'three numbers exposed': effect.dials.order.length >= 3,
      'a colour exposed': Object.values(effect.palette.byId).some(({ isDial }) => isDial),
      'a light': all.some(({ drawn }) => drawn.kind === 'light'),
      fog: effect.stage.air.fog.isOn,
    };
  },
};
