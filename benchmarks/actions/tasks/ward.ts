import { is, isShaped, layersOf, type Task } from './task.ts';

export const ward: Task = {
  id: 'ward',
  what: 'the Salt Ward, struck',
  before: 129,
  make: async (hand) => {
    await hand.bring('tallow');
    // The dome about him, in Source first: new layers open there.
    await hand.ready('soft dots');
    await hand.choose('source', 'at a point');
    await hand.type(/^source place, moved by, x/, '0, 0, 0');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^standing/, '1');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.chapter('Life');
    await hand.type(/^size/, '2.6 m');
    await hand.type(/^opacity/, '25');
    await hand.chapter('Appearance');
    await hand.choose('drawn as', 'meshes');
    await hand.menu('Choose a mesh', 'dome');
    await hand.choose('facing', 'as it is turned');
    // The blows.
    await hand.ready('soft dots');
    await hand.chapter('Source');
    await hand.choose('source', 'by hits');
    await hand.button('Add a hit');
    await hand.type(/^hit 1, place, moved by, x/, '0, 1, 1.2');
    await hand.button('Add a hit');
    await hand.type(/^hit 2, place, moved by, x/, '-0.8, 1.1, 0.9');
    await hand.type(/^hit 2, time/, '0.6');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^lifetime/, '0.8');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.chapter('Life');
    await hand.type(/^size/, '10 cm');
    await hand.button('Strike');
    // The motes of the ring.
    await hand.ready('soft dots');
    await hand.chapter('Source');
    await hand.choose('source', 'on particles');
    await hand.choose('the particles born on', 'Dots 2');
    await hand.type(/^ring/, '0.9 m');
    await hand.button(/^ring/);
    await hand.menu('Shape it…', 'by age');
    await hand.shape('rising');
    await hand.type(/^raggedness/, '8 cm');
    await hand.type(/^size of the rags/, '20 cm');
    await hand.chapter('Births');
    await hand.type(/^rate/, '160');
    await hand.type(/^lifetime/, '0.5 to 1');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along the surface');
    await hand.type(/^angle of the tangent/, '35');
    await hand.type(/^speed/, '0.8');
    await hand.menu('Add a force', 'Drag');
    await hand.type(/^drag, strength/, '3');
    await hand.menu('Add a surface', 'Sphere');
    await hand.choose('sphere, act', 'are kept');
    await hand.type(/^sphere, radius/, '1.3 m');
    await hand.type(/^sphere, place, moved by, x/, '0, 0, 0');
    await hand.chapter('Life');
    await hand.type(/^size/, '2 to 4 cm');
    // The chips.
    await hand.ready('sparks');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^lifetime/, '1.5 to 2.5');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along the normal');
    await hand.type(/^opening angle/, '40');
    await hand.type(/^gravity, strength/, '9.81');
    await hand.menu('Add a surface', 'Ground');
    await hand.type(/^ground, bounce/, '30');
    await hand.chapter('Appearance');
    await hand.choose('drawn as', 'meshes');
    await hand.menu('Choose a mesh', 'salt');
    await hand.row('Dots 2');
    await hand.chapter('Links');
    await hand.menu('Set off…', 'Sparks');
    await hand.choose('link to Sparks, when', 'is born');
    await hand.type(/^link to Sparks, how many/, '14 to 20');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const blows = all.find(({ source }) => source.kind === 'hits');
    const motes = all.find(({ source }) => source.kind === 'particles');
    const falling = all.filter(({ forces }) => Object.values(forces.byId).some(({ kind }) => kind === 'gravity'));
    return {
      'a dome': all.some(({ drawn }) => drawn.kind === 'mesh' && JSON.stringify(drawn).includes('dome')),
      'two blows given': blows?.source.kind === 'hits' && blows.source.hits.order.length >= 2,
      'over 0.8 s': is(blows?.settings['births.life'], 0.8),
      'a ragged ring that runs':
        motes !== undefined && isShaped(motes.settings['source.ring']) && !is(motes.settings['source.ragged'], 0),
      'along the tangent, turned':
        is(motes?.settings['motion.launch'], 'tangent') && is(motes?.settings['motion.angle'], 35),
      'they stay on the shell': Object.values(effect.surfaces.byId).some(({ settings }) =>
        is(settings['act'], 'keep'),
      ),
      'only the chips fall': falling.length === 1,
      'chips at each blow': blows !== undefined && blows.links.order.length === 1,
    };
  },
};
