import { is, isShaped, layersOf, settingOf, type Task } from './task.ts';

export const knot: Task = {
  id: 'knot',
  what: 'a knot of peat',
  before: 124,
  make: async (hand) => {
    await hand.bring('sedge');
    await hand.ready('soft dots');
    await hand.type(/^radius/, '0.7 m');
    await hand.chapter('Births');
    await hand.type(/^rate/, '250');
    await hand.type(/^lifetime/, '2 to 3');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.menu('Add a force', 'Attraction');
    await hand.choose('attraction, toward', 'a line');
    await hand.type(/^attraction, strength/, '6');
    await hand.menu('Add a force', 'Vortex');
    await hand.type(/^vortex, spin/, '5');
    await hand.type(/^vortex, lift/, '3');
    await hand.button(/^vortex, lift/);
    await hand.menu('Shape it…', 'by the stretch’s time');
    await hand.key('Escape');
    await hand.menu('Add a force', 'Curl noise');
    await hand.type(/^curl noise, swirl size/, '0.8 m');
    await hand.menu('Add a force', 'Curl noise');
    await hand.type(/^curl noise, swirl size/, '12 cm', 1);
    await hand.type(/^curl noise, strength/, '1', 1);
    await hand.menu('Add a force', 'Drag');
    await hand.type(/^drag, strength/, '0.5 to 1.5');
    await hand.chapter('Life');
    await hand.type(/^size/, '6 to 14 cm');
    await hand.chapter('Appearance');
    await hand.choose('drawn as', 'meshes');
    await hand.menu('Choose a mesh', 'reed');
    await hand.choose('facing', 'along its motion');
    await hand.choose('blending', 'as something solid');
    await hand.choose('lit', 'is lit as a card');
    await hand.chapter('Births');
    await hand.type(/^rate/, '2500');
    // Three numbers and a colour brought out.
    await hand.button(/^rate/);
    await hand.button('Bring it out');
    await hand.chapter('Motion');
    await hand.button(/^vortex, spin/);
    await hand.button('Bring it out');
    await hand.button(/^attraction, strength/);
    await hand.button('Bring it out');
    await hand.button('Whole effect');
    await hand.button('Name a colour');
    await hand.colour('colour of Lamp', '#5a4a36');
    await hand.button('bring it out');
    await hand.row('Dots');
    await hand.chapter('Life');
    await hand.choose('colour, from the palette', 'Lamp');
    // The ball in the middle.
    await hand.ready('soft dots');
    await hand.chapter('Source');
    await hand.choose('source', 'at a point');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^standing/, '1');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.chapter('Life');
    await hand.type(/^size/, '50 cm');
    await hand.colour('colour', '#4a3626');
    await hand.chapter('Appearance');
    await hand.choose('drawn shape, shape', 'disc');
    await hand.choose('lit', 'is lit as a small ball');
    await hand.choose('blending', 'as something solid');
    await hand.menu('Add a step', 'Rim');
    await hand.colour('rim, rim colour', '#5fd06a');
    await hand.button('Whole effect');
    await hand.menu('Add a dial…', 'a number');
    await hand.row('Dots 2');
    await hand.button(/^rim, intensity/);
    await hand.menu('Shape it…', /^by Number|^by Strength|^by /);
    await hand.key('Escape');
    // A light inside, fog, dusk.
    await hand.ready('a light');
    await hand.chapter('Life');
    await hand.colour('colour', '#6fe08a');
    await hand.button('Lens and air');
    await hand.choose('fog', 'on');
    await hand.type(/^density of fog/, '4');
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
