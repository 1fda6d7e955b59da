import { layersOf, type Task } from './task.ts';

export const sigil: Task = {
  id: 'sigil',
  what: 'a sigil that opens and holds',
  before: 115,
  make: async (hand) => {
    await hand.say('opening 1.4', 'name a colour Lamp #8fe0d0', 'name a colour Reed #e8f070');
    await hand.button('Whole effect');
    await hand.menu('Add a dial…', 'a place');
    await hand.say('add a mark on the ground', 'place Target', 'add drawn shape');
    await hand.menu('tint it…', 'by the effect’s time');
    const stops = hand.page.locator('.tint').getByRole('button', { name: /^colour at/ });
    await hand.press('a stop', stops.nth(0));
    await hand.colour('colour of this stop', 'Lamp');
    await hand.press('a stop', stops.nth(1));
    await hand.colour('colour of this stop', 'Reed');
    await hand.choose('drawn shape, shape', 'star', 2);
    await hand.type(/^drawn shape, points/, '6');
    await hand.say('add a line that is written', 'place Target', 'births end 1.4');
    // The reeds.
    await hand.say('add soft dots', 'rate 0', 'lifetime 3', 'speed 0', 'size 30-50 cm over age 0, 100%', 'mesh reed');
    await hand.say('as it is turned');
    await hand.layer('Line');
    await hand.say('set off Dots', 'on birth', 'link chance 40');
    // The drops.
    await hand.say(
      'add sparks',
      'source ring',
      'place Target',
      'radius 1.2 m',
      'rate 0',
      'burst 40',
      'along an axis',
    );
    await hand.say('speed 1.5-2.5');
    // The ripples.
    await hand.layer('Mark');
    await hand.say('duplicate', 'standing 0', 'burst 1 every 0.3, 3 times', 'lifetime 1.2', 'size rising');
    // Under another figure, and out.
    await hand.say('bring tallow');
    await hand.button('Whole effect');
    await hand.type(/^Target, x/, '0, 0, 0');
    await hand.button('Hand over');
    const saving = hand.page.waitForEvent('download');
    await hand.button(/^Save the parcel/);
    const parcel = await (await saving).path();
    const context = hand.page.context();
    const answer = await hand.page.request.post('/api/projects', { data: { name: 'Another' } });
    const { id } = (await answer.json()) as { id: string };
    const other = await context.newPage();
    await other.goto(`/projects/${id}`);
    const choosing = other.waitForEvent('filechooser');
    await other.getByRole('button', { name: 'Bring in files…' }).click();
    await (await choosing).setFiles(parcel);
    hand.note('bring in the parcel', 2);
    await other
      .getByRole('link', { name: /Made by hand/ })
      .first()
      .waitFor();
    await other.close();
    await hand.page.request.delete(`/api/projects/${id}`);
  },
  asked: (effect) => {
    const all = layersOf(effect);
    return {
      'opens in 1.4 s': effect.stretches.opening === 1.4,
      'holds until let go': effect.stretches.hold.kind !== 'none',
      'two palette colours': effect.palette.order.length === 2,
      'strokes that start reeds': all.some(({ links, drawn }) => drawn.kind === 'strand' && links.order.length > 0),
      'drops and ripples': all.filter(({ bursts }) => bursts.order.length > 0).length === 2,
      'on a place of its own':
        JSON.stringify(effect.layers).split('"kind":"dial"').length > 3 || effect.groups.order.length > 0,
    };
  },
};
