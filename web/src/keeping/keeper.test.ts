import { diff, structuredCopy } from '@jinx/core/document';
import { FakeWindow } from './fakeWindow';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError } from '../api';
import { FakeServer, flame, rate } from './fakeServer';
import { Keeper } from './keeper';
import { seed } from './fakeWindow.ts';

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
    const faulty = new FakeWindow(server, 'faulty', (...sent) => {
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
    const unlucky = new FakeWindow(server, 'unlucky', async (id, from, edits) => {
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
    const picky = new FakeWindow(server, 'picky', async (id, from, edits) => {
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
    const failing = new FakeWindow(server, 'failing', async (id, from, edits) => {
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
    const away = new FakeWindow(server, 'away', async (id, from, edits) => {
      if (++times <= 12) throw new ApiError(503, 'The database does not answer.', { code: 'database' });
      return server.send(id, from, edits);
    });
    away.change(seed(7));
    await rest(60_000);
    expect([away.keeper.state, times]).toEqual(['saved', 13]);
  });

  it('is not sent again where there is no room for it', async () => {
    const full = new FakeWindow(server, 'full', async () => {
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
