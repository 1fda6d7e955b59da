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
    await hand.say('bring sedge', 'clip sweep', 'hold 0', 'opening 1.2', 'add the sweep of a blade', 'lifetime 0.3');
    await hand.say('lasts 0.18', 'shape band');
    // Its dark behind.
    await hand.say('duplicate', 'blending multiply', 'lasts 0.3', 'colour #2a3a2a', 'layer order down');
    // Its thin edge before.
    await hand.layer('Blade');
    await hand.say('duplicate', 'colour white', 'intensity 4', 'from 0, 0.8, 0', 'lasts 0.08');
    // Chips from its border.
    await hand.layer('Blade');
    await hand.say(
      'add sparks',
      'source line',
      'rate 0',
      'lifetime 0.3-0.7',
      'burst 24 at 0.25',
      'along the tangent',
    );
    await hand.say('speed 1-4', 'size 1-4 cm', 'duplicate', 'blending multiply', 'burst 8');
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
    await hand.say('width along it 120');
  },
  asked: (effect) => {
    const blades = layersOf(effect).filter(({ drawn }) => drawn.kind === 'blade');
    return {
      'played once': effect.stretches.hold.kind === 'none',
      'three crescents, twice': blades.length === 6,
      'a dark one': blades.filter(({ settings }) => is(settings['appearance.blend'], 'multiply')).length === 2,
      'a fifth wider': blades.every(({ drawn }) => is(settingOf(drawn, 'width'), 120)),
      'chips along the tangent':
        layersOf(effect).filter(({ settings }) => is(settings['motion.launch'], 'tangent')).length >= 4,
      'later by a quarter': blades.some(({ bursts }) => Object.values(bursts.byId).some(({ at }) => at > 0.4)),
    };
  },
};
