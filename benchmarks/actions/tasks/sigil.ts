import { layersOf, type Task } from './task.ts';

export const sigil: Task = {
  id: 'sigil',
  what: 'a sigil that opens and holds',
  before: 115,
  make: async (hand) => {
    await hand.field('opening in seconds', '1.4');
    await hand.button('Whole effect');
    await hand.button('Name a colour');
    await hand.colour('colour of Lamp', '#8fe0d0');
    await hand.button('Name a colour');
    await hand.colour('colour of Lamp 2', '#e8f070');
    await hand.menu('Add a dial…', 'a place');
    await hand.ready('a mark on the ground');
    await hand.choose('source place', 'Target');
    await hand.chapter('Life');
    await hand.menu('tint it…', 'by the effect’s time');
    await hand.press(
      'a stop',
      hand.page
        .locator('.tint')
        .getByRole('button', { name: /^colour at/ })
        .nth(0),
    );
    await hand.choose('colour of this stop, from the palette', 'Lamp');
    await hand.press(
      'a stop',
      hand.page
        .locator('.tint')
        .getByRole('button', { name: /^colour at/ })
        .nth(1),
    );
    await hand.choose('colour of this stop, from the palette', 'Lamp 2');
    await hand.chapter('Appearance');
    await hand.menu('Add a step', 'Drawn shape');
    await hand.choose('drawn shape, shape', 'star', 2);
    await hand.type(/^drawn shape, points/, '6');
    await hand.ready('a line that is written');
    await hand.chapter('Source');
    await hand.choose('source place', 'Target');
    await hand.chapter('Births');
    await hand.type(/^births end, seconds/, '1.4');
    // The reeds.
    await hand.ready('soft dots');
    await hand.type(/^rate/, '0');
    await hand.type(/^lifetime/, '3');
    await hand.chapter('Motion');
    await hand.type(/^speed/, '0');
    await hand.chapter('Life');
    await hand.type(/^size/, '30 to 50 cm');
    await hand.shape('rising');
    await hand.chapter('Appearance');
    await hand.choose('drawn as', 'meshes');
    await hand.menu('Choose a mesh', 'reed');
    await hand.choose('facing', 'as it is turned');
    await hand.row('Line');
    await hand.chapter('Links');
    await hand.menu('Set off…', 'Dots');
    await hand.choose('link to Dots, when', 'is born');
    await hand.type(/^link to Dots, chance/, '40');
    // The drops.
    await hand.ready('sparks');
    await hand.chapter('Source');
    await hand.choose('source', 'along a ring');
    await hand.choose('source place', 'Target');
    await hand.type(/^radius/, '1.2 m');
    await hand.chapter('Births');
    await hand.type(/^rate/, '0');
    await hand.button('Add a burst');
    await hand.type(/^burst count:/, '40');
    await hand.type(/^burst count at most/, '40');
    await hand.chapter('Motion');
    await hand.choose('launch', 'along an axis');
    await hand.type(/^speed/, '1.5 to 2.5');
    // The ripples.
    await hand.row('Mark');
    await hand.button('Duplicate');
    await hand.chapter('Births');
    await hand.type(/^standing/, '0');
    await hand.button('Add a burst');
    await hand.type(/^burst count:/, '1');
    await hand.type(/^burst count at most/, '1');
    await hand.type(/^burst times/, '3');
    await hand.type(/^burst every/, '0.3');
    await hand.type(/^lifetime/, '1.2');
    await hand.shape('rising');
    // Under another figure, and out.
    await hand.bring('tallow');
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
    await other.getByRole('button', { name: 'Bring in a parcel…' }).click();
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
