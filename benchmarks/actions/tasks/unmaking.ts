import { is, isShaped, layersOf, type Task } from './task.ts';

export const unmaking: Task = {
  id: 'unmaking',
  what: 'the unmaking of a walker',
  before: 87,
  make: async (hand) => {
    await hand.bring('bogling');
    await hand.choose('clip', 'walk');
    await hand.bring('tallow');
    // Out of the way, by hand: a metre and a half aside.
    await hand.button('tallow');
    await hand.type(/^stands at, x/, '1.5, 0, 0');
    await hand.button('tallow');
    await hand.ready('soft dots');
    await hand.choose('source', 'on a mesh of the stage');
    await hand.choose('order', 'evenly spread');
    await hand.menu('hold and free them…', 'as a sphere grows');
    await hand.choose('front, place', 'bogling, lamp');
    await hand.type(/^front, border/, '1.3 m');
    await hand.button(/^front, border/);
    await hand.menu('Shape it…', 'by the effect’s time');
    await hand.key('Escape');
    await hand.type(/^front, raggedness/, '9 cm');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^standing per/, '500');
    await hand.type(/^lifetime/, '1.6 to 2.4');
    await hand.field('hold in seconds', '2.5');
    await hand.field('closing in seconds', '2');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along the normal');
    await hand.type(/^speed/, '0.1 to 0.4');
    await hand.menu('Add a force', 'Curl noise');
    await hand.type(/^curl noise, strength/, '2');
    await hand.menu('Add a force', 'Attraction');
    await hand.choose('attraction, place', 'tallow, hand.left');
    await hand.type(/^attraction, place, moved by, x/, '0, 0.3, 0');
    await hand.type(/^attraction, strength/, '3 to 5');
    await hand.chapter('Life');
    await hand.type(/^size/, '2 to 4 cm');
    await hand.button('Change it over age');
    await hand.pickStop(0);
    await hand.stopColour('#5a4632');
    await hand.pickStop(1);
    await hand.stopColour('#e8f070');
    await hand.button('Duplicate');
    await hand.chapter('Source');
    await hand.choose('region', 'its inside');
    await hand.ready('a skin over a body');
    await hand.chapter('Appearance');
    await hand.choose('whose skin', 'bogling');
    await hand.choose('stands', 'in place of the body');
    await hand.choose('front that cuts it', 'Front');
    await hand.type(/^width of the glowing edge/, '3 cm');
    await hand.button('Remove Rim');
    await hand.row('Dots');
    await hand.rowToo('Dots, copy');
    await hand.chapter('Births');
    await hand.type(/^standing per/, '8*500');
  },
  asked: (effect) => {
    const all = layersOf(effect);
    const motes = all.filter(({ source }) => source.kind === 'mesh');
    return {
      'skin and inside': motes.length === 2 && motes.some(({ settings }) => is(settings['source.region'], 'volume')),
      'one front': effect.fronts.order.length === 1 && motes.every(({ front }) => front !== null),
      'from the lamp': Object.values(effect.fronts.byId).every(({ place }) => place.kind === 'bone'),
      'it grows': Object.values(effect.fronts.byId).every(({ settings }) => isShaped(settings.border)),
      'eight times as dense': motes.every(({ settings }) => is(settings['births.perArea'], 4000)),
      'drawn over Tallow’s hand': motes.every(({ forces }) =>
        Object.values(forces.byId).some(({ kind, place }) => kind === 'attraction' && place.kind === 'bone'),
      ),
      'the body is cut': all.some(({ drawn }) => drawn.kind === 'body' && drawn.front !== null),
    };
  },
};
