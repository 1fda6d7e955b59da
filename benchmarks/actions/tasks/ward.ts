import { is, isShaped, layersOf, type Task } from './task.ts';

export const ward: Task = {
  id: 'ward',
  what: 'the Salt Ward, struck',
  before: 129,
  make: async (hand) => {
    // The dome about him.
    await hand.say(
      'bring tallow',
      'add soft dots',
      'source point',
      'place 0, 0, 0',
      'rate 0',
      'standing 1',
      'speed 0',
    );
    await hand.say('size 2.6 m', 'opacity 25', 'mesh dome', 'as it is turned');
    // The blows.
    await hand.say('add soft dots', 'by hits', 'rate 0', 'lifetime 0.8', 'speed 0', 'size 10 cm');
    await hand.button('Add a hit');
    await hand.type(/^hit 1, place, moved by, x/, '0, 1, 1.2');
    await hand.button('Add a hit');
    await hand.type(/^hit 2, place, moved by, x/, '-0.8, 1.1, 0.9');
    await hand.button('Strike where it is clicked');
    await hand.clickStage(0.55, 0.4);
    await hand.key('Escape');
    // The motes of the ring.
    await hand.say('add soft dots', 'on particles', 'ring about each 0.9 m over time 0, 100%', 'raggedness 8 cm');
    await hand.choose('the particles born on', 'Dots 2');
    await hand.say('ring about each over age 0, 100%', 'size of the rags 20 cm', 'rate 160', 'lifetime 0.5-1');
    await hand.say('along the tangent', 'angle of the tangent 35', 'speed 0.8', 'drag strength 3', 'size 2-4 cm');
    await hand.say('meet sphere', 'sphere act are kept', 'sphere radius 1.3 m', 'sphere surface place 0, 0, 0');
    // The chips.
    await hand.say('add sparks', 'rate 0', 'lifetime 1.5-2.5', 'along the normal', 'opening angle 40');
    await hand.say('gravity strength 9.81', 'meet ground', 'ground bounce 30', 'mesh salt');
    await hand.layer('Dots 2');
    await hand.say('set off Sparks', 'on birth', 'how many 14-20');
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
