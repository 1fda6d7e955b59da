import { is, isShaped, layersOf, type Task } from './task.ts';

export const breath: Task = {
  id: 'breath',
  what: 'the breath of a well',
  before: 48,
  make: async (hand) => {
    await hand.ready('soft dots');
    await hand.choose('source', 'on a box');
    await hand.type(/^source place, moved by, x/, '0, 0, 0');
    await hand.type(/^size, x/, '1.5, 0, 0.6');
    await hand.chapter('Births');
    await hand.type(/^lifetime/, '5 to 7');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along an axis');
    await hand.chapter('Life');
    await hand.type(/^size/, '3 to 18 cm');
    await hand.line('opacity');
    await hand.pickKey(1);
    await hand.keyAnchor('after birth');
    await hand.keyPlace('0.5');
    await hand.pickKey(2);
    await hand.keyAnchor('before death');
    await hand.keyPlace('1.5');
    await hand.button('Change it over age');
    await hand.pickStop(0);
    await hand.stopColour('#dff4ff');
    await hand.addStop(0.25);
    await hand.stopColour('#6fb8c8');
    await hand.pickStop(2);
    await hand.stopColour('#1c3a4a');
    await hand.line('size');
    await hand.shape('rising');
    await hand.addKey(0.5);
    await hand.keyValue('25');
    await hand.chapter('Births');
    await hand.type(/^rate/, '3*40');
    await hand.type(/^pre-roll/, '7');
  },
  asked: (effect) => {
    const [layer] = layersOf(effect);
    const { settings, source } = layer!;
    return {
      'a flat oblong': source.kind === 'box' && is(settings['source.size'], [1.5, 0, 0.6]),
      '5 to 7 s': is(settings['births.life'], 5, 7),
      upward: is(settings['motion.launch'], 'axis'),
      '3 to 18 cm': is(settings['life.size'], 0.03, 0.18),
      'keys by seconds': ['afterBirth', 'beforeDeath'].every((anchor) =>
        JSON.stringify(settings['life.opacity'].shapers).includes(anchor),
      ),
      'three colours': (JSON.stringify(settings['life.colour'].shapers).match(/hex/g) ?? []).length === 3,
      'grows all its life': isShaped(settings['life.size']),
      'three times as many': is(settings['births.rate'], 120),
      'there at once': effect.stretches.preRoll >= 5,
    };
  },
};
