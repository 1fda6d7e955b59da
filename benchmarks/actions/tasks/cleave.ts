import type { Hand } from '../hand.ts';
import { is, layersOf, settingOf, type Task } from './task.ts';

/** Chooses all rows of a kind, one by one. */
async function chooseRows(hand: Hand, name: RegExp): Promise<void> {
  const rows = hand.page.locator('[data-kind=layer]').filter({ hasText: name });
  for (let n = 0; n < (await rows.count()); n++) {
    await rows
      .nth(n)
      .locator('.name')
      .click(n === 0 ? {} : { modifiers: ['ControlOrMeta'] });
    hand.note('choose a row', 1);
  }
}

export const cleave: Task = {
  id: 'cleave',
  what: 'a cleave, left and right',
  before: 99,
  make: async (hand) => {
    await hand.bring('sedge');
    await hand.choose('clip', 'sweep');
    await hand.field('hold in seconds', '0');
    await hand.field('opening in seconds', '1.2');
    await hand.ready('the sweep of a blade');
    await hand.chapter('Births');
    await hand.type(/^lifetime/, '0.3');
    await hand.chapter('Appearance');
    await hand.type(/^lasts/, '0.18');
    await hand.button('Remove Drawn shape');
    await hand.menu('Add a step', 'Drawn shape');
    await hand.choose('drawn shape, shape', 'band');
    // Its dark behind.
    await hand.button('Duplicate');
    await hand.choose('blending', 'darkening what is behind');
    await hand.type(/^lasts/, '0.3');
    await hand.chapter('Life');
    await hand.colour('colour', '#2a3a2a');
    await hand.menu('More…', 'toward the back (Alt ↓)');
    // Its thin edge before.
    await hand.row('Blade');
    await hand.button('Duplicate');
    await hand.chapter('Life');
    await hand.colour('colour', '#ffffff');
    await hand.type(/^intensity/, '4');
    await hand.chapter('Appearance');
    await hand.type(/^ribbon, from, moved by, x/, '0, 0.8, 0');
    await hand.type(/^lasts/, '0.08');
    // Chips from its border.
    await hand.row('Blade');
    await hand.ready('sparks');
    await hand.chapter('Source');
    await hand.choose('source', 'along a line');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.type(/^lifetime/, '0.3 to 0.7');
    await hand.button('Add a burst');
    await hand.type(/^burst count:/, '24');
    await hand.type(/^burst count at most/, '24');
    await hand.type(/^burst time/, '0.25');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along the surface');
    await hand.type(/^speed/, '1 to 4');
    await hand.chapter('Life');
    await hand.type(/^size/, '1 to 4 cm');
    await hand.button('Duplicate');
    await hand.chapter('Appearance');
    await hand.choose('blending', 'darkening what is behind');
    await hand.chapter('Births');
    await hand.type(/^burst count:/, '8');
    await hand.type(/^burst count at most/, '8');
    // All mirrored, and later.
    await hand.press('the first row', hand.page.locator('[data-kind=layer]').first().locator('.name'));
    await hand.page.keyboard.down('Shift');
    await hand.press('to the last row', hand.page.locator('[data-kind=layer]').last().locator('.name'));
    await hand.page.keyboard.up('Shift');
    await hand.menu('More…', 'duplicate, mirrored');
    await hand.type(/^burst time/, '0.5');
    await chooseRows(hand, /Blade.*mirrored/);
    await hand.type(/^burst time/, '0.45');
    // All crescents a fifth wider.
    await chooseRows(hand, /Blade/);
    await hand.chapter('Appearance');
    await hand.type(/^width at the head/, '120');
    await hand.type(/^width at the tail/, '120');
  },
  asked: (effect) => {
    const blades = layersOf(effect).filter(({ drawn }) => drawn.kind === 'blade');
    return {
      'played once': effect.stretches.hold.kind === 'none',
      'three crescents, twice': blades.length === 6,
      'a dark one': blades.filter(({ settings }) => is(settings['appearance.blend'], 'multiply')).length === 2,
      'a fifth wider': blades.every(({ drawn }) => is(settingOf(drawn, 'atHead'), 120)),
      'chips along the tangent':
        layersOf(effect).filter(({ settings }) => is(settings['motion.launch'], 'tangent')).length >= 4,
      'later by a quarter': blades.some(({ bursts }) => Object.values(bursts.byId).some(({ at }) => at > 0.4)),
    };
  },
};
