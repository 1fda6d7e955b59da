import { is, isShaped, layersOf, settingOf, type Task } from './task.ts';

export const puffs: Task = {
  id: 'puffs',
  what: 'puffs of peat',
  before: 76,
  make: async (hand) => {
    await hand.say(
      'add smoke',
      'source path',
      'place 0, 0, 0',
      'walking along',
      'births a walk 24',
      'rate 9',
      'lifetime 2-3',
    );
    await hand.typeRow(/^point 1, x/, '-1.2, 0, 0.2', '-0.4, 0, -0.2', '0.4, 0, 0.25', '1.3, 0, -0.1');
    await hand.say('size 0.4-0.5 m over age 25%, 200%', 'colour #5a3d26, #a8a49c', 'mesh puff', 'as it is turned');
    await hand.say('remove drawn shape', 'remove drawn shape');
    await hand.say('dissolve amount 100 over age 0, 0 at 50%, 100%', 'tilt -180 to 180');
    await hand.say('wind speed 1.5');
    await hand.say('mute wind', 'attraction strength -2', 'attraction place -1.5, 0.4, 0');
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
