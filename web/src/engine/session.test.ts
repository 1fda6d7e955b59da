import { describe, expect, it } from 'vitest';
import { AssetCache } from './assets';
import { EditSession } from './session';

/** A promise that is settled by hand. */
function held<T>() {
  let resolve!: (value: T) => void;
  let reject!: (error: Error) => void;
  const promise = new Promise<T>((yes, no) => ([resolve, reject] = [yes, no]));
  return { promise, resolve, reject };
}

interface Doc {
  readonly name: string;
  readonly needs: readonly string[];
}

function setUp(patience = 10_000) {
  const published: [string, number][] = [];
  const asked: string[] = [];
  const answers = new Map<string, ReturnType<typeof held<string>>>();
  const cache = new AssetCache<string>({
    fetch: (hash) => {
      asked.push(hash);
      const answer = held<string>();
      answers.set(hash, answer);
      return answer.promise;
    },
    isFinal: (error) => (error as Error).message === 'gone',
    onLate: () => session.again(),
    patience,
  });
  const session = new EditSession<Doc>({
    prepare: ({ needs }) => cache.ensure(needs),
    publish: ({ name }, edit) => void published.push([name, edit]),
  });
  return { session, cache, published, asked, answers };
}
const doc = (name: string, ...needs: string[]): Doc => ({ name, needs });
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('the edits of a document', () => {
  it('are published at once where nothing has to be fetched, each with a number of its own', async () => {
    const { session, published } = setUp();
    void session.put(doc('first'));
    void session.put(doc('second'));
    expect(published).toEqual([
      ['first', 1],
      ['second', 2],
    ]);
    await session.put(doc('third'));
    expect(session.edits).toBe(3);
  });

  it('never let an older document follow a newer one, however late its picture comes', async () => {
    const { session, published, answers } = setUp();
    const first = session.put(doc('waits for a picture', 'picture'));
    const second = session.put(doc('needs another', 'other'));
    const third = session.put(doc('needs nothing'));
    expect(published).toEqual([]);
    answers.get('picture')!.resolve('here');
    await Promise.all([first, second, third]);
    expect(published).toEqual([['needs nothing', 3]]);
    await settled();
    expect(published).toHaveLength(1);
  });

  it('wait for their assets before they are published', async () => {
    const { session, published, answers } = setUp();
    const put = session.put(doc('shows a picture', 'picture'));
    await settled();
    expect(published).toEqual([]);
    answers.get('picture')!.resolve('here');
    await put;
    expect(published).toEqual([['shows a picture', 1]]);
  });

  it('do not wait longer than they have patience, and are published again when it comes', async () => {
    const { session, published, answers } = setUp(5);
    await session.put(doc('shows a slow picture', 'slow'));
    expect(published).toEqual([['shows a slow picture', 1]]);
    void session.put(doc('dragged on', 'slow'));
    expect(published).toHaveLength(2);
    answers.get('slow')!.resolve('here');
    await settled();
    expect(published.at(-1)).toEqual(['dragged on', 2]);
    expect(published).toHaveLength(3);
  });

  it('ask for a missing picture once, and wait for it no more', async () => {
    const { session, published, asked, answers } = setUp();
    const put = session.put(doc('shows a missing picture', 'missing'));
    answers.get('missing')!.reject(new Error('gone'));
    await put;
    for (let tick = 0; tick < 20; tick++) void session.put(doc(`tick ${tick}`, 'missing'));
    expect(published).toHaveLength(21);
    expect(asked).toEqual(['missing']);
  });

  it('ask for it again when told to, without holding edits back, and are published again when it has come', async () => {
    const { session, cache, published, asked, answers } = setUp();
    const put = session.put(doc('shows a missing picture', 'missing'));
    answers.get('missing')!.reject(new Error('gone'));
    await put;
    cache.retry(['missing'], false);
    expect(asked).toHaveLength(1);
    cache.retry(['missing'], true);
    cache.retry(['missing'], true);
    expect(asked).toHaveLength(2);
    void session.put(doc('dragged meanwhile', 'missing'));
    expect(published.at(-1)).toEqual(['dragged meanwhile', 2]);
    answers.get('missing')!.resolve('here');
    await settled();
    expect(published.slice(2)).toEqual([['dragged meanwhile', 2]]);
    expect(cache.get('missing')).toBe('here');
  });

  it('reject where they cannot be shown, and the next is published', async () => {
    const published: string[] = [];
    const session = new EditSession<string>({
      prepare: () => null,
      publish: (name) => {
        if (name === 'broken') throw new Error('cannot be shown');
        published.push(name);
      },
    });
    await expect(session.put('broken')).rejects.toThrow('cannot be shown');
    await session.put('whole');
    expect(published).toEqual(['whole']);
  });
});
