import { apply, diff, structuredCopy, type Effect } from '@jinx/core/document';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError } from '../api';
import { FakeServer, flame, LAYERS, rate } from './fakeServer';
import { Keeper } from './keeper';
import type { Unsaved } from './outbox';

/** A window that has the effect open. */
class Window {
  keeper: Keeper;
  document: Effect;
  /** What this browser keeps for it. */
  kept: Unsaved | null = null;
  /** What it kept as it went away. */
  last: Unsaved | null = null;
  isFull = false;
  writes = 0;
  tookIn = 0;
  constructor(server: FakeServer, name: string, send: FakeServer['send'] = server.send) {
    this.document = server.document;
    this.keeper = new Keeper(
      'one',
      { ...server.standing, document: server.document },
      {
        send,
        since: server.since,
        window: name,
        outbox: {
          keep: async (unsaved) => {
            if (this.isFull) throw new Error('full');
            this.kept = structuredCopy(unsaved);
            this.writes++;
          },
          keepLast: (unsaved) => void (this.last = unsaved),
          forget: async () => void (this.kept = null),
        },
        changed: () => undefined,
        tookIn: (document) => {
          this.document = document;
          this.tookIn++;
        },
      },
    );
  }
  change(recipe: (draft: Effect) => void, label = 'change it'): void {
    const draft = structuredCopy(this.document);
    recipe(draft);
    const [before, changes] = [this.document, diff(this.document, draft)];
    this.document = apply(before, changes);
    this.keeper.take({ before, after: this.document, changes, label, gesture: null });
  }
}
const seed = (value: number) => (draft: Effect) => void (draft.seed = value);

let server: FakeServer;
let mine: Window;
beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer(flame());
  mine = new Window(server, 'mine');
});
afterEach(() => vi.useRealTimers());
const rest = (milliseconds = 600) => vi.advanceTimersByTimeAsync(milliseconds);
const now = (effect = server.document) => structuredCopy(effect);

describe('an effect that is made', () => {
  it('is saved by itself a moment after the last change, once for many, told in words', async () => {
    for (const value of [2, 3, 4]) mine.change(seed(value));
    expect(mine.keeper.state).toBe('waiting');
    await rest();
    expect(mine.keeper.state).toBe('saved');
    expect(server.document.seed).toBe(4);
    expect(server.log.map(({ labels }) => labels)).toEqual([[], ['The effect: seed 1 to 4']]);
    expect(mine.kept).toBeNull();
  });

  it('is kept in this browser at once, and no more once the server has it', async () => {
    mine.change(seed(5));
    await rest(0);
    expect(mine.kept).toMatchObject({ effectId: 'one', window: 'mine', name: 'Flame', revision: 1, head: 'made' });
    expect(mine.kept!.edits.map(({ changes }) => changes[0]!.after)).toEqual([5]);
    await rest();
    expect(mine.kept).toBeNull();
  });

  it('is written into this browser four times a second at most while something is dragged, and as it is in the end', async () => {
    for (let n = 1; n <= 60; n++) {
      mine.change(seed(n));
      await rest(16);
    }
    expect(mine.writes).toBeGreaterThan(2);
    expect(mine.writes).toBeLessThanOrEqual(5);
    await rest(300);
    expect(mine.kept!.edits.map(({ changes }) => changes[0]!.after)).toEqual([60]);
  });

  it('is no longer kept here at once where it is undone: a page that is opened again must not send it', async () => {
    const { document } = mine;
    mine.change(seed(5));
    await rest(0);
    expect(mine.kept).not.toBeNull();
    mine.change(seed(document.seed));
    await rest(0);
    expect(mine.kept).toBeNull();
    await rest();
    expect(server.log).toHaveLength(1);
  });

  it('is kept as the page goes away, with what was changed a moment ago, and only then', async () => {
    mine.keeper.leave();
    expect(mine.last).toBeNull();
    server.mode = 'gone';
    mine.change(seed(5));
    await rest();
    mine.change(seed(6));
    mine.keeper.leave();
    expect(mine.last!.edits.map(({ changes }) => changes[0]!.after)).toEqual([5, 6]);
  });

  it('is kept here while there is no answer, with since when, and sent when there is one', async () => {
    server.mode = 'gone';
    mine.change(seed(5));
    await rest();
    expect(mine.keeper.state).toBe('away');
    const { unsavedSince } = mine.keeper;
    server.mode = 'broken';
    mine.change(rate('body', 7));
    await rest(3100);
    expect([mine.keeper.state, mine.keeper.unsavedSince]).toEqual(['away', unsavedSince]);
    // What was sent stays as it was; what came later follows it.
    expect(mine.kept!.edits).toHaveLength(2);
    server.mode = 'well';
    await rest(3100);
    await rest();
    expect([mine.keeper.state, mine.keeper.unsavedSince]).toEqual(['saved', null]);
    expect(now()).toEqual(now(mine.document));
    expect(mine.kept).toBeNull();
  });

  it('is tried again after a fault that nobody thought of', async () => {
    const faulty = new Window(server, 'faulty', (...sent) => {
      if (server.log.length === 1 && isFaulty) throw new TypeError('a fault');
      return server.send(...sent);
    });
    let isFaulty = true;
    faulty.change(seed(5));
    const told = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    // Nobody waits for a save that a timer begins: it says what went wrong and throws nothing.
    await faulty.keeper.save();
    expect(told).toHaveBeenCalledWith(expect.objectContaining({ message: 'a fault' }));
    told.mockRestore();
    expect(faulty.keeper.state).toBe('refused');
    isFaulty = false;
    faulty.change(seed(6));
    // What was on its way first, then what came after it.
    await rest(1200);
    expect([faulty.keeper.state, server.document.seed]).toEqual(['saved', 6]);
  });

  it('writes nothing more once it is stopped, and leaves what is kept to whoever follows', async () => {
    server.mode = 'gone';
    mine.change(seed(5));
    await rest();
    const left = structuredCopy(mine.kept!);
    mine.keeper.stop();
    server.mode = 'well';
    await rest(10_000);
    await mine.keeper.save();
    expect(mine.kept).toEqual(left);
    expect(server.log).toHaveLength(1);
  });

  it('is taken once where the answer was lost', async () => {
    server.mode = 'deaf';
    mine.change(seed(5));
    await rest();
    expect([mine.keeper.state, server.log.length]).toEqual(['away', 2]);
    server.change(rate('sparks', 9));
    server.mode = 'well';
    await rest(3100);
    expect([mine.keeper.state, server.log.length]).toEqual(['saved', 3]);
    expect(now(mine.document)).toEqual(now());
  });

  it('is sent again under the same id, and is there once, where the database went away as it was written down', async () => {
    const sent: string[] = [];
    const failures = [
      new ApiError(503, 'It may be kept or not.', { code: 'outcome.unknown' }),
      ...Array.from({ length: 6 }, () => new ApiError(500, 'The server failed.', { code: 'server' })),
    ];
    const unlucky = new Window(server, 'unlucky', async (id, from, edits) => {
      sent.push(edits[0]!.id);
      const failure = failures.shift();
      if (failure?.status === 503) await server.send(id, from, edits);
      if (failure) throw failure;
      return server.send(id, from, edits);
    });
    unlucky.change(seed(5));
    await rest(30_000);
    // Failing on and on, it is not sent without end; the next change sends it again, as it was.
    expect(unlucky.keeper.state).toBe('refused');
    expect(sent).toHaveLength(6);
    unlucky.change(rate('body', 7));
    await rest(10_000);
    expect(new Set(sent.slice(0, 8)).size).toBe(1);
    expect([unlucky.keeper.state, server.document.seed]).toEqual(['saved', 5]);
    expect(server.log.flatMap(({ changes }) => changes.map(({ path }) => path[0]))).toEqual(['seed', 'layers']);
  });

  it('is not sent when it was undone before, and is when it was undone while it was sent', async () => {
    mine.change(seed(5));
    mine.change(seed(1));
    expect(mine.keeper.state).toBe('saved');
    await rest();
    expect(server.log).toHaveLength(1);
    server.mode = 'deaf';
    mine.change(seed(5));
    await rest();
    mine.change(seed(1));
    server.mode = 'well';
    await rest(5000);
    expect([mine.keeper.state, server.document.seed]).toEqual(['saved', 1]);
  });

  it('says so when this browser keeps nothing, and is saved all the same', async () => {
    mine.isFull = true;
    mine.change(seed(5));
    await rest(0);
    expect(mine.keeper.isKeptHere).toBe(false);
    await rest();
    expect([mine.keeper.state, mine.keeper.isKeptHere, server.document.seed]).toEqual(['saved', true, 5]);
  });

  it('is sent with another id where another edit has its own', async () => {
    const ids: string[] = [];
    const picky = new Window(server, 'picky', async (id, from, edits) => {
      ids.push(edits[0]!.id);
      if (ids.length === 1) throw new ApiError(409, 'An edit of another effect has this id.', { code: 'known' });
      return server.send(id, from, edits);
    });
    picky.change(seed(7));
    await rest(1000);
    expect([picky.keeper.state, server.document.seed, new Set(ids).size]).toEqual(['saved', 7, 2]);
  });

  it('is not sent for ever where the server fails at it, and the next change may put it right', async () => {
    let times = 0;
    const failing = new Window(server, 'failing', async (id, from, edits) => {
      times++;
      if (times <= 5) throw new ApiError(500, 'The server failed at this.', { code: 'server' });
      return server.send(id, from, edits);
    });
    failing.change(seed(7));
    await rest(60_000);
    expect([failing.keeper.state, failing.keeper.sentence, times]).toEqual([
      'refused',
      'The server failed at this.',
      5,
    ]);
    expect(failing.kept?.edits).toHaveLength(1);
    failing.change(seed(8));
    await rest();
    expect([failing.keeper.state, server.document.seed]).toEqual(['saved', 8]);
  });

  it('is sent for as long as it takes where the database is away', async () => {
    let times = 0;
    const away = new Window(server, 'away', async (id, from, edits) => {
      if (++times <= 12) throw new ApiError(503, 'The database does not answer.', { code: 'database' });
      return server.send(id, from, edits);
    });
    away.change(seed(7));
    await rest(60_000);
    expect([away.keeper.state, times]).toEqual(['saved', 13]);
  });

  it('is not sent again where there is no room for it', async () => {
    const full = new Window(server, 'full', async () => {
      throw new ApiError(507, 'This project takes 4.0 of the 4.0 GB it may.', { code: 'quota' });
    });
    full.change(seed(7));
    await rest(60_000);
    expect([full.keeper.state, full.keeper.sentence]).toEqual([
      'refused',
      'This project takes 4.0 of the 4.0 GB it may.',
    ]);
  });

  it('is refused with a sentence when the server will not have it, and the next change may put it right', async () => {
    const { send } = server;
    let isWary = true;
    const keeper = new Keeper(
      'one',
      { ...server.standing, document: server.document },
      {
        send: async (...sent) => {
          if (isWary) throw new ApiError(422, 'The seed is odd.');
          return send(...sent);
        },
        since: server.since,
        window: 'w',
        outbox: { keep: async () => undefined, keepLast: () => undefined, forget: async () => undefined },
        changed: () => undefined,
        tookIn: () => undefined,
      },
    );
    const take = (to: number, label: string) => {
      const [before, after] = [keeper.local, { ...keeper.local, seed: to }];
      keeper.take({ before, after, changes: diff(before, after), label, gesture: null });
    };
    take(3, 'odd');
    await rest();
    expect([keeper.state, keeper.sentence]).toEqual(['refused', 'The seed is odd.']);
    isWary = false;
    take(4, 'even');
    await rest();
    expect([keeper.state, server.document.seed]).toEqual(['saved', 4]);
  });
});

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
    const refusing = new Window(server, 'refusing', async () => {
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
    const later = new Window(server, 'later');
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
      const windows = [new Window(server, 'a'), new Window(server, 'b')];
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
