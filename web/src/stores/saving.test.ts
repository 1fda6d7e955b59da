import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { apply, collectionOf, diff, setNumber, structuredCopy, type Edit, type Effect } from '@jinx/core/document';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError, type Following, type Standing } from '../api';
import { followWords } from '../bench/savingWords';
import { FakeServer, flame, rate } from '../keeping/fakeServer';
import type { Unsaved } from '../keeping/outbox';
import { useEffectStore } from './effect';

const changed = (effect: Effect, recipe: (draft: Effect) => void): Effect => {
  const draft = structuredCopy(effect);
  recipe(draft);
  return draft;
};

let server: FakeServer;
/** States that were put by on the server. */
let tray: { name: string; document: Effect }[];
/** Windows of this browser that are open, and what of the page is listened to. */
let open: string[];
/** What the server refuses everything with, and how often it was asked. */
let refusal: { status: number; sentence: string } | null;
let sent: { edits: number; states: number };
let following: Following;
let heard: Map<string, (event: { preventDefault(): void }) => void>;

/** The server as the page asks it. */
async function answer(address: string, { method = 'GET', body = '' } = {}): Promise<Response> {
  const say = (status: number, content: unknown) => new Response(JSON.stringify(content), { status });
  try {
    if (server.mode === 'gone') throw new TypeError('no connection');
    if (address.endsWith('/tray')) {
      sent.states++;
      if (refusal) return say(refusal.status, { code: 'known', sentence: refusal.sentence });
      tray.push(JSON.parse(body));
      return say(201, {});
    }
    if (address.startsWith('/api/projects/')) return say(201, { id: 'copy', revision: 1 });
    if (!address.includes('/edits')) {
      const kin = { siblingOf: null, siblings: [] };
      return say(200, {
        id: 'one',
        projectId: 'p',
        livingBudget: 1000,
        ...server.standing,
        document: server.document,
        ...kin,
        following,
      });
    }
    if (method === 'GET') {
      const { searchParams } = new URL(address, 'http://jinx');
      return say(
        200,
        await server.since('one', {
          revision: Number(searchParams.get('revision')),
          head: searchParams.get('head')!,
        }),
      );
    }
    const { edits, ...from } = JSON.parse(body) as Standing & { edits: Edit[] };
    sent.edits++;
    if (refusal) return say(refusal.status, { code: 'role', sentence: refusal.sentence });
    return say(200, { ...(await server.send('one', from, edits)), following });
  } catch (error) {
    if (error instanceof ApiError && !error.isOffline)
      return say(error.status, { sentence: error.message, ...error.body });
    if (error instanceof Error && error.name === 'DocumentError')
      return say(422, { code: 'document', sentence: error.message });
    throw error;
  }
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] });
  vi.resetModules();
  server = new FakeServer(flame());
  [tray, open, heard] = [[], [], new Map()];
  [refusal, sent, following] = [null, { edits: 0, states: 0 }, { at: 1, waiting: 0, failed: [] }];
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('fetch', answer);
  const storage = () => {
    const kept: Record<string, string> = {};
    return Object.defineProperties(kept, {
      getItem: { value: (name: string) => kept[name] ?? null },
      setItem: { value: (name: string, text: string) => void (kept[name] = text) },
      removeItem: { value: (name: string) => void delete kept[name] },
    });
  };
  vi.stubGlobal('localStorage', storage());
  vi.stubGlobal('sessionStorage', storage());
  vi.stubGlobal('navigator', {
    locks: {
      query: async () => ({ held: open.map((name) => ({ name: `jinx window ${name}` })) }),
      request: async () => undefined,
    },
  });
  vi.stubGlobal('window', {
    setTimeout,
    clearTimeout,
    addEventListener: (name: string, hear: (event: { preventDefault(): void }) => void) => heard.set(name, hear),
  });
  setActivePinia(createPinia());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
/** Lets timers run, and what the browser's store does between them. */
async function rest(milliseconds = 600): Promise<void> {
  for (let passed = 0; passed < milliseconds; passed += 100) {
    await vi.advanceTimersByTimeAsync(100);
    for (let turns = 0; turns < 12; turns++) await new Promise((next) => setImmediate(next));
  }
}

const parts = async () => ({
  saving: (await import('./saving')).useSavingStore(),
  outbox: (await import('../keeping/outbox')).outbox,
  behind: await import('../keeping/leftBehind'),
  effects: (await import('./effect')).useEffectStore() as ReturnType<typeof useEffectStore>,
});
/** What a window that is closed now made of the effect as it was. */
function left(recipe: (draft: Effect) => void, window = 'closed', from = flame()): Unsaved {
  const changes = diff(from, changed(from, recipe));
  const edit = { id: crypto.randomUUID(), changes, labels: ['left behind'] };
  return { effectId: 'one', window, name: 'Flame', revision: 1, head: 'made', edits: [edit], since: 5 };
}

describe('what the server will never have', () => {
  const NO = { status: 403, sentence: 'You may look at this project, not change it.' };

  it('is not sent again from a closed window, stays in this browser, and is gone on with where its effect is opened', async () => {
    const { saving, outbox, behind, effects } = await parts();
    await outbox.keep(left(rate('body', 7)));
    refusal = NO;
    for (let times = 0; times < 3; times++) expect(await behind.sendAllLeftBehind()).toEqual([]);
    expect(sent.edits).toBe(1);
    expect((await outbox.all())[0]).toMatchObject({ refused: NO.sentence });
    expect(await saving.open('one')).toContain(NO.sentence);
    expect([effects.effect, sent.edits]).toEqual([changed(flame(), rate('body', 7)), 1]);
    refusal = null;
    await saving.save();
    expect([saving.state, server.document]).toEqual(['saved', changed(flame(), rate('body', 7))]);
  });

  it('is asked for again where there was no answer, or one that may pass', async () => {
    const { outbox, behind } = await parts();
    await outbox.keep(left(rate('body', 7)));
    for (const status of [401, 408, 429, 500, 503]) {
      refusal = { status, sentence: 'Not now.' };
      await behind.sendAllLeftBehind();
    }
    refusal = null;
    expect([await behind.sendAllLeftBehind(), sent.edits]).toEqual([['Flame'], 6]);
  });

  it('is not sent again of states that were put by, and is told once', async () => {
    const { outbox, behind } = await parts();
    await outbox.keepState({ id: 'state', effectId: 'one', body: '{}' });
    refusal = { status: 409, sentence: 'A state of another effect has this id.' };
    expect(await behind.sendStates()).toEqual([refusal.sentence]);
    expect(await behind.sendStates()).toEqual([]);
    expect([sent.states, (await outbox.states()).length]).toEqual([1, 1]);
  });
});

describe('effects that follow', () => {
  it('are counted behind what is said of saving', async () => {
    const { saving, effects } = await parts();
    await saving.open('one');
    following = { at: 2, waiting: 60, failed: [] };
    effects.change('rate', rate('body', 3));
    await rest();
    expect([saving.state, followWords(saving.following)]).toEqual(['saved', '; 60 effects follow']);
    saving.followed({ at: 3, waiting: 1, failed: [] });
    expect(followWords(saving.following)).toBe('; 1 effect follows');
    saving.followed({ at: 4, waiting: 0, failed: [{ name: 'Wick', sentence: 'no layer "x"' }] });
    expect(followWords(saving.following)).toBe('; Wick could not follow: no layer "x"');
    saving.followed({ at: 6, waiting: 0, failed: [] });
    expect(followWords(saving.following)).toBe('');
    // What was read before, and arrives after it, changes nothing.
    saving.followed({ at: 5, waiting: 1, failed: [] });
    expect(followWords(saving.following)).toBe('');
  });
});

describe('what a closed window could not save', () => {
  it('is sent before its effect is opened, and then is a part of it', async () => {
    const { saving, outbox, effects } = await parts();
    await outbox.keep(left(rate('body', 7)));
    expect(await saving.open('one')).toContain('was taken up');
    expect(effects.effect).toEqual(changed(flame(), rate('body', 7)));
    expect([server.log.length, saving.state]).toEqual([2, 'saved']);
    expect(await outbox.all()).toEqual([]);
    expect(await saving.open('one')).toBe('');
  });

  it('is sent wherever Jinx is opened, in the order in which it was made, and is left alone while its window is open', async () => {
    const { outbox, behind } = await parts();
    await outbox.keep({ ...left(rate('body', 7), 'alive'), since: 1 });
    await outbox.keep({ ...left(rate('sparks', 8), 'later'), since: 9 });
    await outbox.keep({ ...left(rate('sparks', 9), 'sooner'), since: 2, name: 'Wick' });
    open = ['alive'];
    // Both changed the same: who was first is saved, the other waits for its effect to be opened.
    expect(await behind.sendAllLeftBehind()).toEqual(['Wick']);
    expect((await outbox.all()).map(({ window }) => window)).toEqual(['alive', 'later']);
    expect(server.document).toEqual(changed(flame(), rate('sparks', 9)));
  });

  it('is chosen from where it clashes, and one’s own is put by before it is given up', async () => {
    const { saving, outbox, effects } = await parts();
    server.change(rate('body', 9));
    await outbox.keep(left(rate('body', 7)));
    await saving.open('one');
    expect([saving.state, saving.clashes().length]).toEqual(['clash', 1]);
    expect(effects.effect).toEqual(changed(flame(), rate('body', 7)));
    await saving.choose(() => false);
    await rest();
    expect(saving.state).toBe('saved');
    expect(effects.effect).toEqual(changed(flame(), rate('body', 9)));
    expect(tray.map(({ name }) => name)).toEqual(['Mine, before the choice']);
    expect(tray[0]!.document).toEqual(changed(flame(), rate('body', 7)));
    expect(await outbox.all()).toEqual([]);
  });

  it('is gone on with where the server will not have it, with why, and undo leaves it out', async () => {
    const { saving, outbox, effects } = await parts();
    await outbox.keep(left((draft) => (draft.seed = -5)));
    expect(await saving.open('one')).toContain('was not saved');
    expect(effects.effect!.seed).toBe(-5);
    await rest();
    expect(saving.state).toBe('refused');
    effects.undo();
    await rest();
    expect([saving.state, effects.effect!.seed]).toEqual(['saved', 1]);
    expect(await outbox.all()).toEqual([]);
  });

  it('stays in the browser where it leads nowhere any more, and that is said', async () => {
    const { saving, outbox } = await parts();
    const strange = left((draft) => (draft.layers.byId['body']!.name = 'Heart'));
    const path = ['layers', 'byId', 'ghost', 'name'];
    await outbox.keep({ ...strange, edits: [{ ...strange.edits[0]!, changes: [{ path, after: 'x' }] }] });
    expect(await saving.open('one')).toMatch(/stays in this browser: .*nothing here to change/);
    expect(await outbox.all()).toHaveLength(1);
  });

  it('is there also when the page went away at once, and the prompt comes only where nothing is kept', async () => {
    const { saving, outbox, effects } = await parts();
    await saving.open('one');
    server.mode = 'gone';
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 7), null, 'body');
    heard.get('pagehide')!({ preventDefault: () => undefined });
    expect(Object.keys(localStorage)).toHaveLength(1);
    let prompts = 0;
    heard.get('beforeunload')!({ preventDefault: () => prompts++ });
    expect(prompts).toBe(0);
    expect((await outbox.all()).map(({ edits }) => edits.length)).toEqual([1]);
    expect(Object.keys(localStorage)).toHaveLength(0);
  });

  it.each(['{"effectId":', 'null', '{"edits":3}'])(
    'is there beside an entry that cannot be read, which is kept aside: %s',
    async (text) => {
      const { outbox, behind } = await parts();
      outbox.keepLast(left(rate('body', 7), 'first'));
      localStorage.setItem('jinx last broken', text);
      outbox.keepLast(left(rate('body', 8), 'second'));
      expect((await behind.leftBehind()).map(({ window }) => window).sort()).toEqual(['first', 'second']);
      expect(outbox.unreadable).toBe(1);
      expect(Object.keys(localStorage)).toEqual(['jinx unreadable broken']);
      expect(localStorage.getItem('jinx unreadable broken')).toBe(text);
      expect(await behind.leftBehind()).toHaveLength(2);
    },
  );
});

describe('saving', () => {
  it('goes on for an effect that is left, and opens it again as it is', async () => {
    const { saving, effects, outbox } = await parts();
    await saving.open('one');
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 7), null, 'body');
    const opened = saving.open('one');
    await rest();
    await opened;
    expect(server.document).toEqual(changed(flame(), rate('body', 7)));
    expect(effects.effect).toEqual(server.document);
    await rest();
    expect([saving.state, server.log.length]).toEqual(['saved', 2]);
    expect(await outbox.all()).toEqual([]);
  });

  it('is finished before an effect is handed over, and says when it cannot be', async () => {
    const { saving, effects } = await parts();
    await saving.open('one');
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 7), null, 'body');
    expect(await saving.settle()).toBe(true);
    expect(server.document).toEqual(changed(flame(), rate('body', 7)));
    server.mode = 'gone';
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 8), null, 'body');
    expect(await saving.settle()).toBe(false);
  });

  it('keeps mine as a copy beside theirs, and goes on with theirs', async () => {
    const { saving, effects } = await parts();
    await saving.open('one');
    server.change(rate('body', 9));
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 7), null, 'body');
    await rest();
    expect(saving.state).toBe('clash');
    expect(await saving.keepMineAsCopy()).toBe('copy');
    await rest();
    expect([saving.state, effects.effect]).toEqual([
      'saved',
      apply(flame(), diff(flame(), changed(flame(), rate('body', 9)))),
    ]);
  });

  it('undoes what was done here over what others did since, and says where that is gone', async () => {
    const { saving, effects } = await parts();
    await saving.open('one');
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 7), null, 'body');
    await rest();
    server.change(rate('sparks', 9));
    saving.announced(server.standing.revision);
    await rest();
    effects.undo();
    await rest();
    expect(server.document).toEqual(changed(flame(), rate('sparks', 9)));
    effects.changeLayer('rate', (layer) => setNumber(layer, 'births.rate', 8), null, 'body');
    await rest();
    server.change((draft) => {
      draft.layers = collectionOf([['sparks', draft.layers.byId['sparks']!]]);
    });
    saving.announced(server.standing.revision);
    await rest();
    effects.undo();
    expect(effects.told!.sentence).toContain('somebody else took away what it is about');
    expect(effects.effect!.layers.order).toEqual(['sparks']);
  });
});
