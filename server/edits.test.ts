import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  canonicalText,
  collectionOf,
  diff,
  namedColour,
  newEffect,
  newLayer,
  parseEffect,
  removeLayer,
  setNumber,
  structuredCopy,
  type Effect,
} from '@jinx/core/document';
import { DATABASE_URL, TestServer, type Opened } from './testing/testServer.ts';

function flame(): Effect {
  const effect = newEffect('Flame', 5);
  effect.layers = collectionOf(['body', 'sparks'].map((name, n) => [name, newLayer(name, n + 1)]));
  return effect;
}
const rate = (layer: string, value: number) => (draft: Effect) =>
  setNumber(draft.layers.byId[layer]!, 'births.rate', value);

describe.skipIf(!DATABASE_URL)('saving', () => {
  let server: TestServer;
  let projectId = '';
  let id = '';
  beforeAll(async () => {
    server = await TestServer.start('jinx_edits_test');
    projectId = await server.makeProject('Marsh');
  });
  afterAll(() => server.stop());
  beforeEach(async () => {
    ({ id } = await server.makeEffect(projectId, flame()));
  });
  const seen = async () => (await server.open(id)).document;

  it('takes what was changed, and makes a revision of it', async () => {
    const { status, body, changed } = await server.change(id, rate('body', 44));
    expect([status, body.revision, body.theirs, body.by]).toEqual([200, 2, [], []]);
    expect(await server.open(id)).toMatchObject({ revision: 2, head: body.head, document: changed });
  });

  it('merges what comes late with what came since, and tells who is late what that was', async () => {
    const opened = await server.open(id);
    await server.change(opened, rate('body', 44), ['Body: rate 40 to 44']);
    const late = await server.change(opened, rate('sparks', 7));
    expect([late.status, late.body.revision, late.body.labels]).toEqual([200, 3, ['Body: rate 40 to 44']]);
    expect(late.body.theirs.map(({ path }: { path: string[] }) => path.slice(0, 5).join(' '))).toContain(
      'layers byId body settings births.rate',
    );
    const now = await seen();
    const both = flame();
    rate('body', 44)(both);
    rate('sparks', 7)(both);
    expect(now).toEqual(both);
  });

  it('refuses a change of the same thing, with what stands now, and writes nothing of it', async () => {
    const opened = await server.open(id);
    await server.change(opened, rate('body', 44));
    const late = await server.change(opened, (draft) => {
      rate('body', 50)(draft);
      rate('sparks', 7)(draft);
    });
    expect([late.status, late.body.code, late.body.revision]).toEqual([409, 'clash', 2]);
    const now = await server.open(id);
    expect(now.revision).toBe(2);
    expect(late.body.document).toEqual(now.document);
    expect(late.body.theirs.length).toBeGreaterThan(0);
    // Made from what stands, it is taken.
    expect((await server.change(now, rate('body', 50))).body.revision).toBe(3);
  });

  it('refuses what is right by itself, and wrong with what came since', async () => {
    const { id: lamp } = await server.makeEffect(projectId, {
      ...flame(),
      palette: collectionOf([['warm', namedColour('Warm', '#ff8800')]]),
    });
    const opened = await server.open(lamp);
    await server.change(opened, (draft) => (draft.palette = collectionOf([])));
    const late = await server.change(opened, (draft) => {
      draft.layers.byId['body']!.settings['life.colour'].base = { kind: 'fixed', value: { palette: 'warm' } };
    });
    expect([late.status, late.body.code]).toEqual([409, 'clash']);
    expect(late.body.sentence).toContain('no palette colour "warm"');
    expect((await server.open(lamp)).revision).toBe(2);
  });

  it('takes an edit once, however often it is sent, and whatever came between', async () => {
    const opened = await server.open(id);
    const draft = structuredCopy(opened.document);
    rate('body', 44)(draft);
    const edit = randomUUID();
    const changes = diff(opened.document, draft);
    const answers = await Promise.all([1, 2, 3].map(() => server.send(opened, changes, edit)));
    expect(answers.map(({ status, body }) => [status, body.revision])).toEqual(Array(3).fill([200, 2]));
    await server.change(id, rate('sparks', 7));
    const again = await server.send(opened, changes, edit);
    expect([again.status, again.body.revision]).toEqual([200, 3]);
    // It is told what came since, to go on from there.
    expect(again.body.theirs.every(({ path }: { path: string[] }) => path.includes('sparks'))).toBe(true);
    expect(await server.count('edits')).toBeGreaterThan(2);
    const { rows } = await server.database.query('select revision from edits where effect_id = $1', [id]);
    expect(rows).toHaveLength(3);
  });

  it('knows an edit again that changed nothing, since others had done the same, and what came after it', async () => {
    const opened = await server.open(id);
    const [first, second] = [flame(), flame()];
    rate('body', 44)(first);
    rate('body', 45)(second);
    const edits = [
      { id: randomUUID(), changes: diff(opened.document, first), labels: [] },
      { id: randomUUID(), changes: diff(first, second), labels: [] },
    ];
    await server.change(opened, rate('body', 44));
    const { revision, head } = opened;
    const send = () => server.ask('POST', `/effects/${id}/edits`, { revision, head, edits });
    expect((await send()).status).toBe(200);
    const now = await server.open(id);
    const again = await send();
    expect([again.status, again.body.revision, again.body.theirs]).toEqual([200, now.revision, []]);
    expect(now.document).toEqual(second);
  });

  it('does not say that nothing was changed where the database went away at the commit, and takes the same again', async () => {
    const opened = await server.open(id);
    const first = flame();
    rate('body', 44)(first);
    const [changes, edit] = [diff(opened.document, first), randomUUID()];
    // The database ends the connection as the transaction is committed.
    await server.database.query(`
      create function cut() returns trigger language plpgsql as $$
        begin perform pg_terminate_backend(pg_backend_pid()); return null; end $$;
      create constraint trigger cut after insert on edits deferrable initially deferred
        for each row execute function cut()`);
    const cut = await server.send(opened, changes, edit);
    expect([cut.status, cut.body.code]).toEqual([503, 'outcome.unknown']);
    await server.database.query('drop trigger cut on edits; drop function cut()');
    expect((await server.send(opened, changes, edit)).status).toBe(200);
    expect((await server.send(opened, changes, edit)).status).toBe(200);
    expect(await server.open(id)).toMatchObject({ revision: 2, document: first });
  });

  it('takes several in one go, the first of which it may have already, or none of them', async () => {
    const opened = await server.open(id);
    const [first, second] = [flame(), flame()];
    rate('body', 44)(first);
    rate('body', 45)(second);
    second.layers = collectionOf([
      ...second.layers.order.map((at) => [at, second.layers.byId[at]!] as const),
      ['ash', newLayer('ash', 9)],
    ]);
    const edits = [
      { id: randomUUID(), changes: diff(opened.document, first), labels: ['first'] },
      { id: randomUUID(), changes: diff(first, second), labels: ['second'] },
    ];
    const { revision, head } = opened;
    expect((await server.send(opened, edits[0]!.changes, edits[0]!.id)).status).toBe(200);
    // Somebody else puts a layer in before the rest arrives.
    await server.change(id, (draft) => {
      draft.layers.order.push('glow');
      draft.layers.byId['glow'] = newLayer('glow', 10);
    });
    const both = await server.ask('POST', `/effects/${id}/edits`, { revision, head, edits });
    expect([both.status, both.body.revision]).toEqual([200, 4]);
    const now = await seen();
    expect(now.layers.order).toEqual(['body', 'sparks', 'ash', 'glow']);
    expect(now.layers.byId['body']!.settings['births.rate'].base).toEqual({ kind: 'fixed', value: 45 });

    const late = await server.open(id);
    await server.change(id, rate('body', 50));
    const sparks = structuredCopy(late.document);
    rate('sparks', 3)(sparks);
    const body = structuredCopy(sparks);
    rate('body', 60)(body);
    const refused = await server.ask('POST', `/effects/${id}/edits`, {
      revision: late.revision,
      head: late.head,
      edits: [
        { id: randomUUID(), changes: diff(late.document, sparks), labels: [] },
        { id: randomUUID(), changes: diff(sparks, body), labels: [] },
      ],
    });
    expect([refused.status, refused.body.taken]).toEqual([409, 0]);
    expect((await server.open(id)).revision).toBe(5);
  });

  it('takes many at once from one revision, each in its turn', async () => {
    const layers = Array.from({ length: 12 }, (_, n) => `layer${n}`);
    const many = newEffect('Many', 5);
    many.layers = collectionOf(layers.map((name, n) => [name, newLayer(name, n)]));
    const { id: effectId } = await server.makeEffect(projectId, many);
    const opened = await server.open(effectId);
    const answers = await Promise.all(layers.map((name, n) => server.change(opened, rate(name, n + 1))));
    expect(answers.map(({ status }) => status)).toEqual(layers.map(() => 200));
    expect(new Set(answers.map(({ body }) => body.revision))).toEqual(new Set(layers.map((_, n) => n + 2)));
    layers.forEach((name, n) => rate(name, n + 1)(many));
    expect((await server.open(effectId)).document).toEqual(many);
  });

  it('does not guess what was made from a version that it never had', async () => {
    const opened: Opened = { ...(await server.open(id)), head: randomUUID() };
    const strange = await server.change(opened, rate('body', 3));
    expect([strange.status, strange.body.code, strange.body.theirs]).toEqual([409, 'clash', null]);
    const since = await server.ask('GET', `/effects/${id}/edits?revision=1&head=${opened.head}`);
    expect([since.status, since.body.code]).toEqual([409, 'clash']);
    expect((await server.ask('GET', `/effects/${id}/edits?revision=x`)).status).toBe(400);
  });

  it('tells what changed since a revision', async () => {
    const opened = await server.open(id);
    const since = async () =>
      (await server.ask('GET', `/effects/${id}/edits?revision=${opened.revision}&head=${opened.head}`)).body;
    expect(await since()).toMatchObject({ revision: 1, theirs: [] });
    await server.change(id, rate('body', 44));
    await server.change(id, rate('body', 41), ['Body: rate 44 to 41']);
    const { revision, theirs, labels } = await since();
    expect([revision, labels[0]]).toEqual([3, 'Body: rate 44 to 41']);
    expect(theirs).toHaveLength(1);
  });

  it.each<[string, unknown, number, RegExp]>([
    ['no edit', {}, 400, /./],
    ['changes that are none', { changes: [] }, 400, /./],
    ['a path into what every object has', { changes: [{ path: ['__proto__', 'x'], after: 1 }] }, 400, /no part/],
    [
      'a path that leads nowhere',
      { changes: [{ path: ['layers', 'byId', 'ghost', 'name'], after: 'x' }] },
      422,
      /nothing here/,
    ],
    ['a wild number', { changes: [{ path: ['seed'], after: 1e99 }] }, 422, /seed/],
    ['a part that is unknown', { changes: [{ path: ['glow'], after: 1 }] }, 400, /glow/],
    ['a part that goes', { changes: [{ path: ['layers'] }] }, 422, /layers/],
    ['a list of thousands of letters', { labels: ['x'.repeat(5000)] }, 400, /./],
  ])('refuses %s with a sentence, and writes nothing', async (_, spoilt, status, sentence) => {
    const { revision, head } = await server.open(id);
    const edit = { id: randomUUID(), changes: [{ path: ['seed'], after: 6 }], labels: [], ...(spoilt as object) };
    const body = Object.keys(spoilt as object).length === 0 ? {} : { revision, head, edits: [edit] };
    const answer = await server.ask('POST', `/effects/${id}/edits`, body);
    expect(answer.status).toBe(status);
    expect(answer.body.sentence).toMatch(sentence);
    expect(await server.open(id)).toMatchObject({ revision: 1, document: flame() });
  });

  it.each<[string, unknown]>([
    ['an order that is none', { path: ['layers', 'order'], before: ['body', 'sparks'], after: 'body' }],
    ['an order from none', { path: ['layers', 'order'], before: 7, after: ['body', 'sparks'] }],
    ['an order of what is none', { path: ['layers', 'order'], before: [], after: [{}, null, 'ghost'] }],
    ['an order of something without one', { path: ['name', 'order'], before: [], after: ['x'] }],
    ['an order that goes', { path: ['layers', 'order'], before: ['body', 'sparks'] }],
    ['an item that is none', { path: ['layers', 'byId', 'body'], after: 'layer' }],
    ['an item of no collection', { path: ['seed', 'byId', 'x'], after: {} }],
  ])('refuses late, or leaves out, %s', async (_, change) => {
    const opened = await server.open(id);
    await server.change(opened, (draft) => (draft.seed = 44));
    const { status, body } = await server.send(opened, [change as never]);
    if (status !== 200) expect([[409, 422].includes(status), typeof body.sentence]).toEqual([true, 'string']);
    const { document } = await server.open(id);
    expect(document.layers.order).toEqual(['body', 'sparks']);
    expect(parseEffect(document).seed).toBe(44);
  });

  it('lets a late change through to whoever follows, merged', async () => {
    const sibling = (await server.ask('POST', `/effects/${id}/siblings`, { name: 'Blue flame' })).body.id;
    const [of, own] = [await server.open(id), await server.open(sibling)];
    await server.change(of, rate('body', 44));
    await server.settle();
    // Whoever has the sibling open is late by what it took on.
    const late = await server.change(own, (draft) => (draft.seed = 99));
    expect([late.status, late.body.revision, late.body.labels]).toEqual([200, 3, ['follow Flame']]);
    const { document } = await server.open(sibling);
    expect(document.seed).toBe(99);
    expect(canonicalText(document.layers)).toBe(canonicalText((await seen()).layers));
  });

  it('gives back a layer that one took away while the other worked on it, as a clash', async () => {
    const opened = await server.open(id);
    await server.change(opened, (draft) => removeLayer(draft, 'sparks'));
    const late = await server.change(opened, rate('sparks', 3));
    expect(late.body.code).toBe('clash');
    expect((await seen()).layers.order).toEqual(['body']);
  });
});

describe.skipIf(!DATABASE_URL)('what is kept', () => {
  let server: TestServer;
  let projectId = '';
  beforeAll(async () => {
    server = await TestServer.start('jinx_kept_test');
    projectId = await server.makeProject('Marsh');
  });
  afterAll(() => server.stop());
  const earlier = (id: string, minutes: number) =>
    server.database.query(
      `with older as (update revisions set kept_at = kept_at - $2::interval where effect_id = $1)
       update effects set saved_at = saved_at - $2::interval where id = $1`,
      [id, `${minutes} minutes`],
    );
  const revisions = async (id: string) =>
    (await server.ask('GET', `/effects/${id}/revisions`)).body as {
      revision: number;
      name: string | null;
      labels: string[];
    }[];

  it('is what was saved over, though not every letter that was typed, and always what stood before a pause', async () => {
    const { id } = await server.makeEffect(projectId, newEffect('Lamp', 5));
    const seed = (value: number) => server.change(id, (draft) => (draft.seed = value), [`seed ${value}`]);
    expect((await revisions(id)).map(({ revision }) => revision)).toEqual([1]);
    await seed(6);
    await seed(7);
    expect((await revisions(id)).map(({ revision }) => revision)).toEqual([3, 1]);
    // A pause: where it stood before is kept, a moment after another or not.
    await earlier(id, 30);
    await seed(8);
    const listed = await revisions(id);
    expect(listed.map(({ revision, labels }) => [revision, labels])).toEqual([
      [4, ['seed 8']],
      [3, ['seed 6', 'seed 7']],
      [1, []],
    ]);
    const at = async (revision: number) => server.ask('GET', `/effects/${id}/revisions/${revision}`);
    expect((await at(1)).body.document.seed).toBe(5);
    expect((await at(3)).body.document.seed).toBe(7);
    expect((await at(4)).body.document.seed).toBe(8);
    for (const none of [2, 'x', 1e12]) expect((await at(none as number)).status).toBe(404);
  });

  it('may have a name, and has it until that is taken away', async () => {
    const { id } = await server.makeEffect(projectId, newEffect('Lamp', 5));
    const name = (revision: number, called: string | null) =>
      server.ask('PATCH', `/effects/${id}/revisions/${revision}`, { name: called });
    expect((await name(1, 'First light')).status).toBe(204);
    await server.change(id, (draft) => (draft.seed = 6));
    expect((await revisions(id)).map(({ revision, name: called }) => [revision, called])).toEqual([
      [2, null],
      [1, 'First light'],
    ]);
    await name(1, null);
    expect((await revisions(id))[1]!.name).toBeNull();
    expect((await name(9, 'None')).status).toBe(404);
    expect((await name(1, ' ')).body.sentence).toContain('needs a name');
  });

  it('is brought back: effects, projects and what was imported, for thirty days', async () => {
    const project = await server.makeProject('Bog');
    const { id } = await server.makeEffect(project, newEffect('Lamp', 5));
    expect((await server.ask('DELETE', `/effects/${id}`)).status).toBe(204);
    expect((await server.ask('GET', `/effects/${id}`)).status).toBe(404);
    expect((await server.ask('POST', `/effects/${id}/siblings`, { name: 'Late' })).status).toBe(404);
    expect((await server.ask('GET', `/projects/${project}`)).body.effects).toEqual([]);
    expect((await server.ask('GET', `/projects/${project}/deleted`)).body.effects).toMatchObject([
      { id, name: 'Lamp' },
    ]);
    expect((await server.ask('POST', `/effects/${id}/restore`)).status).toBe(204);
    expect((await server.open(id)).document.seed).toBe(5);

    expect((await server.ask('DELETE', `/projects/${project}`)).status).toBe(204);
    // With its project, an effect is out of reach.
    expect((await server.ask('GET', `/effects/${id}`)).status).toBe(404);
    expect((await server.ask('GET', '/deleted')).body).toMatchObject([{ id: project, name: 'Bog' }]);
    expect((await server.ask('POST', `/projects/${project}/restore`)).status).toBe(204);
    expect((await server.open(id)).revision).toBe(1);
  });

  it('is a state in the tray, with its picture, sent twice kept once; deleted and brought back', async () => {
    const { id } = await server.makeEffect(projectId, newEffect('Lamp', 5));
    const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
    const state = { id: randomUUID(), name: 'Lucky', seconds: 1.5, document: newEffect('Lamp', 77), picture: png };
    for (let times = 0; times < 2; times++)
      expect((await server.ask('POST', `/effects/${id}/tray`, state)).status).toBe(201);
    const tray = async () => (await server.ask('GET', `/effects/${id}/tray`)).body;
    expect(await tray()).toMatchObject([{ id: state.id, name: 'Lucky', seconds: 1.5, hasPicture: true }]);
    expect((await server.ask('GET', `/tray/${state.id}`)).body.document.seed).toBe(77);
    const picture = await fetch(`${server.base}/tray/${state.id}/picture`);
    expect(Buffer.from(await picture.arrayBuffer()).toString('base64')).toBe(png);
    await server.ask('PATCH', `/tray/${state.id}`, { name: 'Luckier' });
    await server.ask('DELETE', `/tray/${state.id}`);
    expect(await tray()).toEqual([]);
    await server.ask('POST', `/tray/${state.id}/restore`);
    expect(await tray()).toMatchObject([{ name: 'Luckier' }]);
    for (const spoilt of [{ picture: 'AAAA' }, { document: {} }, { seconds: -1 }, { picture: '!' }])
      expect(
        (await server.ask('POST', `/effects/${id}/tray`, { ...state, id: randomUUID(), ...spoilt })).status,
      ).not.toBe(201);
    expect(await tray()).toHaveLength(1);
  });

  it('refuses to be read by a Jinx that is too old for it, in a sentence', async () => {
    await server.database.query(`insert into migrations (name) values ('999-later.sql')`);
    const { migrate } = await import('./index.ts');
    await expect(migrate(server.database)).rejects.toThrow(/newer Jinx \("999-later.sql".*update Jinx/);
    await server.database.query(`delete from migrations where name = '999-later.sql'`);
  });
});
