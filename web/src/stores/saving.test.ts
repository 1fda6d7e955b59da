import { canonicalText, newEffect, parseEffect, type Effect } from '@jinx/core/document';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { useEffectStore } from './effect';

/** A server of one effect, which can be made to fail in the ways a real one does. */
class FakeServer {
  document: Effect = newEffect('Lamp', 1);
  revision = 1;
  saves: Effect[] = [];
  mode: 'well' | 'gone' | 'broken' = 'well';

  answer = async (address: string, options?: { method?: string; body?: string }): Promise<Response> => {
    if (this.mode === 'gone') throw new TypeError('no connection');
    const say = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });
    if (this.mode === 'broken') return say(500, { code: 'server', sentence: 'The server failed.' });
    if (options?.method === 'POST') return say(201, { id: 'copy', ...JSON.parse(options.body!) });
    if (options?.method !== 'PUT')
      return say(200, {
        id: address.split('/').pop(),
        projectId: 'p',
        revision: this.revision,
        document: this.document,
      });
    const { revision, document } = JSON.parse(options.body!) as { revision: number; document: Effect };
    if (revision !== this.revision)
      return say(409, {
        code: 'stale',
        sentence: 'Changed elsewhere.',
        revision: this.revision,
        document: this.document,
      });
    this.document = parseEffect(document);
    this.saves.push(this.document);
    return say(200, { revision: ++this.revision });
  };
}

let server: FakeServer;
let kept: Map<string, string>;
/** What the store listens to of the page. */
let heard: Map<string, () => void>;

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer();
  kept = new Map();
  vi.stubGlobal('fetch', server.answer);
  vi.stubGlobal('localStorage', {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, text: string) => kept.set(name, text),
    removeItem: (name: string) => kept.delete(name),
  });
  heard = new Map();
  vi.stubGlobal('window', {
    setTimeout,
    clearTimeout,
    addEventListener: (name: string, hear: () => void) => heard.set(name, hear),
  });
  setActivePinia(createPinia());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function opened() {
  const { useSavingStore } = await import('./saving');
  const saving = useSavingStore();
  const effects = useEffectStore();
  const hadDraft = await saving.open('one');
  return { saving, effects, hadDraft };
}
async function change(effects: ReturnType<typeof useEffectStore>, seed: number): Promise<void> {
  effects.change('another throw', (draft) => (draft.seed = seed));
  await nextTick();
}

describe('saving', () => {
  it('happens by itself a moment after the last change, once for many', async () => {
    const { saving, effects } = await opened();
    for (const seed of [2, 3, 4]) await change(effects, seed);
    expect(saving.state).toBe('waiting');
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('saved');
    expect(server.saves.map(({ seed }) => seed)).toEqual([4]);
    expect(kept.size).toBe(0);
  });

  it('says so while there is no answer, keeps the work here, and saves when there is one', async () => {
    const { saving, effects } = await opened();
    server.mode = 'gone';
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('offline');
    expect(kept.size).toBe(1);
    server.mode = 'broken';
    await vi.advanceTimersByTimeAsync(3100);
    expect(saving.state).toBe('offline');
    server.mode = 'well';
    await vi.advanceTimersByTimeAsync(3100);
    expect(saving.state).toBe('saved');
    expect(server.document.seed).toBe(5);
    expect(kept.size).toBe(0);
  });

  it('takes up what never reached the server, and undo leaves it out', async () => {
    const draft = { ...newEffect('Lamp', 9) };
    kept.set('jinx draft one', JSON.stringify({ revision: 1, text: canonicalText(draft) }));
    const { effects, hadDraft } = await opened();
    expect(hadDraft).toBe(true);
    expect(effects.effect!.seed).toBe(9);
    effects.undo();
    expect(effects.effect!.seed).toBe(1);
  });

  it('leaves no draft behind when a change is undone before it was saved', async () => {
    const { saving, effects } = await opened();
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(200);
    expect(kept.size).toBe(1);
    effects.undo();
    await nextTick();
    await vi.advanceTimersByTimeAsync(200);
    expect(saving.state).toBe('saved');
    expect(kept.size).toBe(0);
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.saves).toHaveLength(0);
  });

  it('saves what was undone while its change was being saved', async () => {
    const { saving, effects } = await opened();
    const quick = server.answer;
    vi.stubGlobal('fetch', async (address: string, options?: { method?: string; body?: string }) => {
      await new Promise((done) => setTimeout(done, 1000));
      return quick(address, options);
    });
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    effects.undo();
    await nextTick();
    await vi.advanceTimersByTimeAsync(200);
    expect(kept.size).toBe(1);
    await vi.advanceTimersByTimeAsync(5000);
    expect(saving.state).toBe('saved');
    expect(server.document.seed).toBe(1);
    expect(kept.size).toBe(0);
  });

  it('keeps what is changed on this machine before the server has it, also when the page goes away at once', async () => {
    const { effects } = await opened();
    server.mode = 'gone';
    await change(effects, 5);
    expect(kept.size).toBe(0);
    heard.get('pagehide')!();
    expect(JSON.parse(kept.get('jinx draft one')!).text).toContain('"seed":5');
  });

  it('of an effect just opened is no change', async () => {
    const { saving } = await opened();
    await nextTick();
    expect(saving.state).toBe('saved');
    await vi.advanceTimersByTimeAsync(1000);
    expect(kept.size).toBe(0);
    expect(server.saves).toHaveLength(0);
  });

  it('forgets a draft that cannot be read', async () => {
    kept.set('jinx draft one', '{"revision":1,"text":"broken"}');
    const { hadDraft, effects } = await opened();
    expect(hadDraft).toBe(false);
    expect(effects.effect!.seed).toBe(1);
    expect(kept.size).toBe(0);
  });

  it('from a stale revision stops, with both at hand', async () => {
    const { saving, effects } = await opened();
    server.document = newEffect('Lamp', 77);
    server.revision = 2;
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('stale');
    expect(saving.theirs!.document.seed).toBe(77);
    expect(effects.effect!.seed).toBe(5);
    await change(effects, 6);
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.saves).toHaveLength(0);
  });

  it('keeps on this machine what is changed after a stale save', async () => {
    const { effects } = await opened();
    server.document = newEffect('Lamp', 77);
    server.revision = 2;
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    await change(effects, 6);
    await vi.advanceTimersByTimeAsync(200);
    const draft = JSON.parse(kept.get('jinx draft one')!) as { revision: number; text: string };
    expect(parseEffect(JSON.parse(draft.text)).seed).toBe(6);
    expect(draft.revision).toBe(1);
  });

  it('goes to the server even where the browser keeps nothing', async () => {
    const { saving, effects } = await opened();
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      setItem: () => {
        throw new Error('full');
      },
      removeItem: () => undefined,
    });
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(200);
    expect(saving.sentence).toContain('keeps nothing');
    expect(saving.isKeptHere).toBe(false);
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('saved');
    expect(server.document.seed).toBe(5);
  });

  it('is finished before an effect is handed over, and says when it cannot be', async () => {
    const { saving, effects } = await opened();
    const quick = server.answer;
    vi.stubGlobal('fetch', async (address: string, options?: { method?: string; body?: string }) => {
      await new Promise((done) => setTimeout(done, 1000));
      return quick(address, options);
    });
    await change(effects, 2);
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('saving');
    await change(effects, 3);
    const settled = saving.settle();
    await vi.advanceTimersByTimeAsync(3000);
    expect(await settled).toBe(true);
    expect(server.document.seed).toBe(3);
    server.mode = 'gone';
    await change(effects, 4);
    const failing = saving.settle();
    await vi.advanceTimersByTimeAsync(1500);
    expect(await failing).toBe(false);
  });

  it('of one effect leaves no draft behind when another was opened meanwhile', async () => {
    const { saving, effects } = await opened();
    const quick = server.answer;
    vi.stubGlobal('fetch', async (address: string, options?: { method?: string; body?: string }) => {
      if (options?.method === 'PUT') await new Promise((done) => setTimeout(done, 1000));
      return quick(address, options);
    });
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    await saving.open('two');
    await vi.advanceTimersByTimeAsync(2000);
    expect(server.document.seed).toBe(5);
    expect(kept.size).toBe(0);
    expect([effects.id, effects.revision, saving.state]).toEqual(['two', 1, 'saved']);
  });

  it('goes on with theirs, and undo brings mine back', async () => {
    const { saving, effects } = await opened();
    server.document = newEffect('Lamp', 77);
    server.revision = 2;
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    saving.takeTheirs();
    expect(effects.effect!.seed).toBe(77);
    effects.undo();
    await nextTick();
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('saved');
    expect(server.document.seed).toBe(5);
    expect(server.revision).toBe(3);
  });

  it('keeps mine as a copy beside theirs', async () => {
    const { saving, effects } = await opened();
    server.revision = 2;
    await change(effects, 5);
    await vi.advanceTimersByTimeAsync(600);
    expect(await saving.keepMineAsCopy()).toBe('copy');
    expect(saving.theirs).toBeNull();
    expect(kept.size).toBe(0);
    // The page goes on to the copy: leaving must not make a draft of the other again.
    heard.get('pagehide')!();
    expect(kept.size).toBe(0);
  });

  it('goes on with what was changed while it was saving', async () => {
    const { saving, effects } = await opened();
    await change(effects, 2);
    const slow = server.answer;
    vi.stubGlobal('fetch', async (address: string, options?: { method?: string; body?: string }) => {
      await new Promise((done) => setTimeout(done, 1000));
      return slow(address, options);
    });
    await vi.advanceTimersByTimeAsync(600);
    expect(saving.state).toBe('saving');
    await change(effects, 3);
    await vi.advanceTimersByTimeAsync(4000);
    expect(saving.state).toBe('saved');
    expect(server.saves.map(({ seed }) => seed)).toEqual([2, 3]);
  });
});
