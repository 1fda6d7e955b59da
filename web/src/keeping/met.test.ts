import { structuredCopy, type Effect } from '@jinx/core/document';
import { FakeWindow } from './fakeWindow';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError } from '../api';
import { FakeServer, flame, LAYERS, rate } from './fakeServer';

let server: FakeServer;
let mine: FakeWindow;
beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer(flame());
  mine = new FakeWindow(server, 'mine');
});
afterEach(() => vi.useRealTimers());
const rest = (milliseconds = 600) => vi.advanceTimersByTimeAsync(milliseconds);
const now = (effect = server.document) => structuredCopy(effect);

describe('an effect that two make', () => {
  it('takes in what the other changed elsewhere, whoever was first', async () => {
    mine.change(rate('body', 7));
    server.change(rate('sparks', 9));
    await rest();
    expect([mine.keeper.state, mine.tookIn]).toEqual(['saved', 1]);
    expect(now(mine.document)).toEqual(now());
    // Told of it while at rest.
    server.change(rate('smoke', 4));
    mine.keeper.announced(server.standing.revision);
    await rest(0);
    expect([mine.keeper.state, mine.tookIn]).toEqual(['saved', 2]);
    expect(now(mine.document)).toEqual(now());
  });

  it('takes in what it could not while its own was refused, once that is undone', async () => {
    const refusing = new FakeWindow(server, 'refusing', async () => {
      throw new ApiError(403, 'You may look at this project, not change it.');
    });
    refusing.change(rate('body', 7));
    await rest();
    expect(refusing.keeper.state).toBe('refused');
    server.change(rate('body', 9));
    refusing.keeper.announced(server.standing.revision);
    await rest();
    refusing.change((draft) => Object.assign(draft, structuredCopy(flame())));
    await rest();
    expect(refusing.keeper.state).toBe('saved');
    expect(now(refusing.document)).toEqual(now());
  });

  it('waits for a choice where both changed the same, and overwrites nothing until then', async () => {
    server.change(rate('body', 9));
    mine.change(rate('body', 7));
    mine.change(rate('sparks', 3));
    await rest();
    expect(mine.keeper.state).toBe('clash');
    expect(mine.keeper.clashes.map(({ path }) => path.join(' '))).toEqual(['layers byId body settings births.rate']);
    // What is changed meanwhile is kept here.
    mine.change(rate('smoke', 5));
    await rest(5000);
    expect(server.log).toHaveLength(2);
    expect(mine.kept!.edits).toHaveLength(1);
    mine.document = mine.keeper.choose(() => false);
    await rest();
    const wanted = flame();
    for (const [layer, value] of [
      ['body', 9],
      ['sparks', 3],
      ['smoke', 5],
    ] as const)
      rate(layer, value)(wanted);
    expect([mine.keeper.state, mine.kept]).toEqual(['saved', null]);
    expect(now()).toEqual(wanted);
    expect(now(mine.document)).toEqual(wanted);
  });

  it('keeps mine where that is chosen, and theirs as a whole', async () => {
    server.change(rate('body', 9));
    mine.change(rate('body', 7));
    await rest();
    mine.document = mine.keeper.choose(() => true);
    await rest();
    expect(now()).toEqual(now(mine.document));
    const wanted = flame();
    rate('body', 7)(wanted);
    expect(now()).toEqual(wanted);
    server.change(rate('body', 10));
    mine.change(rate('body', 11));
    await rest();
    mine.document = mine.keeper.takeTheirs();
    await rest();
    expect(mine.keeper.state).toBe('saved');
    rate('body', 10)(wanted);
    expect(now()).toEqual(wanted);
  });

  it('does not overwrite what was changed while its own change was on its way', async () => {
    server.mode = 'deaf';
    mine.change(rate('body', 7));
    await rest();
    // It was taken; before it hears of that, both change another setting.
    server.change(rate('sparks', 9));
    mine.change(rate('sparks', 5));
    server.mode = 'well';
    await rest(3100);
    expect(mine.keeper.state).toBe('clash');
    // A window that takes it up later sends the same, and meets the same.
    const left = structuredCopy(mine.kept!);
    expect(left.edits).toHaveLength(2);
    await expect(server.send('one', left, left.edits)).rejects.toMatchObject({ body: { code: 'clash', taken: 1 } });
    expect(server.log).toHaveLength(3);
  });

  it('is taken up from a closed window with what it clashes with', async () => {
    server.mode = 'deaf';
    mine.change(rate('body', 7));
    await rest();
    mine.change(rate('sparks', 5));
    await rest(0);
    const left = structuredCopy(mine.kept!);
    mine.keeper.stop();
    server.change(rate('sparks', 9));
    server.mode = 'well';
    const refused = await server.send('one', left, left.edits).catch((error: unknown) => error as { body: never });
    const { taken, ...body } = (
      refused as { body: { taken: number; theirs: never; revision: number; head: string; document: Effect } }
    ).body;
    const later = new FakeWindow(server, 'later');
    later.document = later.keeper.takeUp(left, { stand: body, theirs: body.theirs, by: [], sentence: '' }, taken);
    expect(later.document.layers.byId['sparks']!.settings['births.rate'].base).toEqual({ kind: 'fixed', value: 5 });
    expect(later.keeper.clashes).toHaveLength(1);
    later.document = later.keeper.choose(() => true);
    await rest();
    const wanted = flame();
    rate('body', 7)(wanted);
    rate('sparks', 5)(wanted);
    expect(now()).toEqual(wanted);
  });
});

it('brings any two windows together, however often the line fails, and loses nothing that does not clash', async () => {
  type Act =
    readonly ['change', 0 | 1, string, number] | readonly ['line', FakeServer['mode']] | readonly ['wait', number];
  const act: fc.Arbitrary<Act> = fc.oneof(
    fc.tuple(
      fc.constant('change' as const),
      fc.constantFrom(0 as const, 1 as const),
      fc.constantFrom(...LAYERS),
      fc.integer({ min: 1, max: 9 }),
    ),
    fc.tuple(fc.constant('line' as const), fc.constantFrom<FakeServer['mode']>('well', 'gone', 'broken', 'deaf')),
    fc.tuple(fc.constant('wait' as const), fc.integer({ min: 0, max: 4000 })),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 25 }), async (acts) => {
      server = new FakeServer(flame());
      const windows = [new FakeWindow(server, 'a'), new FakeWindow(server, 'b')];
      for (const one of acts) {
        if (one[0] === 'line') server.mode = one[1];
        else if (one[0] === 'wait') await rest(one[1]);
        else windows[one[1]]!.change(rate(one[2], one[3]));
        for (const { keeper } of windows) keeper.announced(server.standing.revision);
      }
      server.mode = 'well';
      for (let times = 0; times < 6; times++) {
        await rest(4000);
        for (const each of windows) if (each.keeper.met) each.document = each.keeper.choose(() => true);
        for (const { keeper } of windows) keeper.announced(server.standing.revision);
      }
      for (const { keeper, document, kept } of windows) {
        expect([keeper.state, kept]).toEqual(['saved', null]);
        expect(now(document)).toEqual(now());
        keeper.stop();
      }
      // Each layer is as one of the two left it last.
      for (const layer of LAYERS) {
        const lasts = [0, 1].flatMap((who) =>
          acts.filter((one) => one[0] === 'change' && one[1] === who && one[2] === layer).slice(-1),
        );
        const is = (server.document.layers.byId[layer]!.settings['births.rate'].base as { value: number }).value;
        if (lasts.length > 0) expect(lasts.map((one) => one[3])).toContain(is);
      }
    }),
    { numRuns: 60 },
  );
});
