import { is, isShaped, layersOf, measured, near, settingOf, type Task } from './task.ts';

export const dazed: Task = {
  id: 'dazed',
  what: 'a dazed Bogling',
  before: 92,
  make: async (hand) => {
    await hand.say('bring bogling', 'add soft dots', 'source ring', 'place head 0, 0.22, 0', 'turn 14, 0, 0');
    await hand.say('radius 0.24 m', 'evenly spread', 'rate 0', 'burst 6', 'lifetime 5.5', 'hold 4.5', 'speed 0');
    await hand.say('add orbit', 'orbit turns a second 1/1.2', 'orbit axis 0, 1, 0.25');
    await hand.say('orbit share over time 100%, 100% at 80%, 0 at 81%, 0', 'gravity strength -2 to -4');
    await hand.say('gravity strength over age 0, 0 at 80%, 100% at 81%, 100%');
    await hand.say(
      'size 14 cm',
      'show moth',
      'picture columns 4',
      'picture rows 2',
      'by the clock',
      'first frame 0-100',
    );
    await hand.say('normal');
    await hand.say('radius *1.5', 'orbit turns a second 1/1.2');
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
        near(measured(effect, settings['source.radius']), 0.36) &&
        near(measured(effect, settingOf(orbit, 'distance')), 0.36),
      'they let go': isShaped(settingOf(orbit, 'share')) || orbit?.muted === true,
      moths: JSON.stringify(layer!.look).includes('moth'),
    };
  },
};
