import { is, isShaped, layersOf, settingOf, type Task } from './task.ts';

export const puffs: Task = {
  id: 'puffs',
  what: 'puffs of peat',
  before: 76,
  make: async (hand) => {
    await hand.ready('smoke');
    await hand.choose('source', 'along a drawn path');
    await hand.type(/^source place, moved by, x/, '0, 0, 0');
    await hand.type(/^point 1, x/, '-1.2, 0, 0.2');
    await hand.type(/^point 2, x/, '-0.4, 0, -0.2');
    await hand.type(/^point 3, x/, '0.4, 0, 0.25');
    await hand.type(/^point 4, x/, '1.3, 0, -0.1');
    await hand.choose('order', 'walking along');
    await hand.type(/^births a walk/, '24');
    await hand.chapter('Births');
    await hand.type(/^rate/, '9');
    await hand.type(/^lifetime/, '2 to 3');
    await hand.chapter('Life');
    await hand.type(/^size/, '0.4 to 0.5');
    await hand.pickKey(0);
    await hand.keyValue('25');
    await hand.pickKey(1);
    await hand.keyValue('200');
    await hand.pickStop(0);
    await hand.stopColour('#5a3d26');
    await hand.pickStop(1);
    await hand.stopColour('#a8a49c');
    await hand.chapter('Appearance');
    await hand.choose('drawn as', 'meshes');
    await hand.menu('Choose a mesh', 'puff');
    await hand.choose('facing', 'as it is turned');
    await hand.button('Remove Drawn shape');
    await hand.button('Remove Drawn shape');
    await hand.menu('Add a step', 'Dissolve');
    await hand.type(/^dissolve, amount/, '100');
    await hand.button(/^dissolve, amount/);
    await hand.menu('Shape it…', 'by age');
    await hand.shape('rising');
    await hand.addKey(0.5);
    await hand.keyValue('0');
    await hand.chapter('Life');
    await hand.button('to…', 0);
    await hand.type(/^tilt, x/, '-180, -180, -180');
    await hand.type(/^tilt, up to, x/, '180, 180, 180');
    await hand.chapter('Motion');
    await hand.menu('Add a force', 'Wind');
    await hand.type(/^wind, wind speed/, '1.5');
    await hand.menu('turn into…', 'Attraction', 3);
    await hand.type(/^attraction, strength/, '-2');
    await hand.type(/^attraction, place, moved by, x/, '-1.5, 0.4, 0');
  },
  asked: (effect) => {
    const [layer] = layersOf(effect);
    const { settings, source, drawn } = layer!;
    const { look } = layer!;
    const step =
      look.kind === 'own' ? Object.values(look.steps.byId).find(({ kind }) => kind === 'dissolve') : undefined;
    return {
      'a drawn crack': source.kind === 'path' && source.points.every(([, y]) => y === 0),
      'one end to the other': is(settings['source.order'], 'walking'),
      '9 a second': is(settings['births.rate'], 9),
      '2 to 3 s': is(settings['births.life'], 2, 3),
      'puff meshes': drawn.kind === 'mesh' && JSON.stringify(drawn).includes('puff'),
      'turned at random': settings['life.tilt'].base.kind === 'spread',
      'it swells': isShaped(settings['life.size']) && JSON.stringify(settings['life.size'].shapers).includes('0.25'),
      'eaten away': isShaped(settingOf(step, 'amount')),
      'wind from a place': Object.values(layer!.forces.byId).some(({ kind }) => kind === 'attraction'),
    };
  },
};
