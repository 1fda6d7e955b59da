import { randomUUID } from 'node:crypto';
import { encode } from 'fast-png';
import { collectionOf, newEffect, newForce, type Effect } from '@jinx/core/document';
import { linkEffect } from '@jinx/core/editing';
import { upgrade } from '../raw.ts';
import { fieldOf, pause, times, type Answered, type Attacker } from './client.ts';

/** What the attackers know: nobody has signed in, the others have, each with their part in one project. */
export interface Field {
  readonly nobody: Attacker;
  /** Signed in, without a part in the project. */
  readonly outsider: Attacker;
  readonly viewer: Attacker;
  readonly editor: Attacker;
  readonly owner: Attacker;
  readonly project: string;
  readonly effect: { readonly id: string; readonly revision: number; readonly head: string };
  readonly document: Effect;
  /** An effect that sixty others follow. */
  readonly followed: string;
  /** A picture at the limit of what is kept. */
  readonly asset: string;
  /** Notes an answer that the one who asked may not have. */
  readonly leak: (what: string) => void;
  /** Attackers without a cookie, each from an address of its own. */
  readonly from: (n: number) => Attacker;
}

type Case = (field: Field) => Promise<void>;

const NONE = ['//', '//x', '/\\', '/%', '/%zz', '*', 'http://[', '/api/effects//live', '/?%E0%A4%A', '///?window='];
const GARBAGE = [
  'what?\r\n\r\n',
  `GET / HTTP/1.1\r\nX: ${'x'.repeat(40_000)}`,
  'POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Length: 1\r\nContent-Length: 2\r\n\r\n',
  'GET /api/health HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\n\r\nzz\r\n',
  '\0'.repeat(512),
  'CONNECT localhost:1 HTTP/1.1\r\nHost: localhost\r\n\r\n',
  'GET // HTTP/1.1\r\nHost: localhost\r\n\r\n',
  'GET /%ff%fe HTTP/1.1\r\nHost: localhost\r\n\r\n',
];
const answered = (text: string) => text !== '';
const editOf = ({ effect }: Field, changes: readonly unknown[], id: string = randomUUID()) => ({
  revision: effect.revision,
  head: effect.head,
  edits: [{ id, changes, labels: [] }],
});
const items = (count: number, value: unknown = {}) =>
  Object.fromEntries(Array.from({ length: count }, (_, n) => [`l${n}`, value]));
const png = (width: number, height: number) =>
  encode({ width, height, channels: 4, data: new Uint8Array(width * height * 4).fill(90) });

/** A GLB of a few hundred bytes that states fifteen million indices. */
function boastingGlb(): Uint8Array {
  let text = JSON.stringify({
    asset: { version: '2.0' },
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0 }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1 }] }],
    accessors: [
      { componentType: 5126, type: 'VEC3', count: 3 },
      { componentType: 5125, type: 'SCALAR', count: 15_000_000 },
    ],
  });
  while (text.length % 4 !== 0) text += ' ';
  const bytes = new Uint8Array(20 + text.length);
  const view = new DataView(bytes.buffer);
  [0x46546c67, 2, bytes.length, text.length, 0x4e4f534a].forEach((word, n) => view.setUint32(n * 4, word, true));
  bytes.set(Buffer.from(text), 20);
  return bytes;
}

/** Every case by its name, as it was found. */
export const CASES: Readonly<Record<string, Case>> = {
  'upgrades at addresses that are none': ({ from }) =>
    times(1000, 12, async (n) => {
      const socket = from(n).raw(upgrade(NONE[n % NONE.length]!));
      await socket.until(({ text }) => answered(text), 3000);
      socket.end();
    }).then(() => undefined),

  'upgrades from other pages, and by other names': ({ nobody, effect }) =>
    times(100, 8, async (n) => {
      const headers: Record<string, string> =
        n % 2 ? { Origin: 'http://elsewhere.test' } : { Host: 'elsewhere.test' };
      const socket = nobody.raw(upgrade(`/api/effects/${effect.id}/live?window=${randomUUID()}`, headers));
      await socket.until(({ text }) => answered(text), 3000);
      socket.end();
    }).then(() => undefined),

  'what is no request': ({ from }) =>
    times(1000, 12, async (n) => {
      const socket = from(n).raw(GARBAGE[n % GARBAGE.length]!);
      await socket.until(({ text, isClosed }) => answered(text) || isClosed, 500);
      socket.end();
    }).then(() => undefined),

  'an edit of 100,000 keys and 1,000 changes': async (field) => {
    const changes = [
      { path: ['x'], after: items(100_000, 0) },
      ...Array.from({ length: 1000 }, (_, n) => ({ path: ['x', `l${n}`], after: 1 })),
    ];
    await times(6, 2, () => field.editor.ask('POST', `/effects/${field.effect.id}/edits`, editOf(field, changes)));
  },

  'an edit of 20,000 changes to one record, and of 20,000 orders': async (field) => {
    const inRecord = [
      { path: ['layers', 'byId', 'x'], after: items(15_000, 0) },
      ...Array.from({ length: 15_000 }, (_, n) => ({ path: ['layers', 'byId', 'x', `l${n}`], after: 1 })),
    ];
    const { order } = field.document.layers;
    const orders = Array.from({ length: 20_000 }, () => ({
      path: ['layers', 'order'],
      before: order,
      after: [...order].reverse(),
    }));
    const send = (changes: readonly unknown[]) =>
      field.editor.ask('POST', `/effects/${field.effect.id}/edits`, editOf(field, changes));
    await times(3, 1, () => send(inRecord));
    await times(3, 1, () => send(orders));
  },

  'edits of unknown parts, by unknown names, with ids that are none': async (field) => {
    const paths = [
      ['x'],
      ['__proto__', 'x'],
      ['constructor', 'prototype'],
      ['layers', 'byId', 'constructor', 'name'],
    ];
    await times(120, 8, (n) =>
      field.editor.ask(
        'POST',
        `/effects/${field.effect.id}/edits`,
        editOf(field, [{ path: paths[n % paths.length], after: 1 }], n % 5 ? randomUUID() : 'x'),
      ),
    );
  },

  'a document of 450,000 empty layers, and others with very many broken parts': async ({ editor, project }) => {
    const document = (byId: unknown, more: object = {}) => ({
      document: { ...newEffect('Lamp', 1), layers: { order: [], byId }, ...more },
    });
    const bodies = [
      document(items(450_000)),
      document(items(19_999)),
      document(items(128)),
      document({}, { palette: Array.from({ length: 19_999 }, () => [{}, {}, {}]) }),
      document({}, { looks: { order: [], byId: items(64, { name: 'x', steps: { order: [], byId: items(64) } }) } }),
    ];
    await times(10, 2, (n) => editor.ask('POST', `/projects/${project}/effects`, bodies[n % bodies.length]));
  },

  'documents and edits as large as may be, and right': async (field) => {
    const { editor, project } = field;
    const layer = field.document.layers.byId['l0']!;
    const force = newForce('vortex');
    const forces = collectionOf(Array.from({ length: 10 }, (_, n) => [`f${n}`, force] as const));
    const document: Effect = {
      ...newEffect('Large', 1),
      layers: collectionOf(Array.from({ length: 128 }, (_, n) => [`l${n}`, { ...layer, forces }] as const)),
    };
    const made = await times(3, 1, () => editor.ask('POST', `/projects/${project}/effects`, { document }));
    const [id, head] = [fieldOf(made[0]!.text, 'id'), fieldOf(made[0]!.text, 'head')];
    const changes = [{ path: ['layers'], after: document.layers }];
    await editor.ask('POST', `/effects/${id}/edits`, {
      revision: 1,
      head,
      edits: [{ id: randomUUID(), changes, labels: [] }],
    });
    await times(3, 1, () => editor.ask('GET', `/effects/${id}`));
  },

  'sixteen megabytes at the sign-in, and bodies that never end': async ({ from }) => {
    const head = 'POST /api/session HTTP/1.1\r\nHost: localhost\r\n';
    await times(64, 8, async (n) => {
      const socket = from(n).raw(`${head}Content-Length: 16000000\r\n\r\n`).send(new Uint8Array(1_000_000));
      await socket.until(({ text, isClosed }) => answered(text) || isClosed, 3000);
      socket.end();
    });
    const sockets = Array.from({ length: 200 }, (_, n) =>
      from(n).raw(n % 2 ? `${head}Content-Length: 4000\r\n\r\n{` : head),
    );
    await pause(9500);
    for (const socket of sockets) socket.end();
  },

  'more connections than are served': async ({ from, nobody }) => {
    const sockets = Array.from({ length: 500 }, (_, n) => (n % 2 ? from(n) : nobody).raw());
    await pause(3000);
    for (const socket of sockets) socket.end();
    await pause(500);
  },

  'refused upgrades that are never let go': async ({ from }) => {
    const held = Array.from({ length: 300 }, (_, n) => from(n).raw(upgrade('/api/nothing')));
    await Promise.all(held.map((socket) => socket.until(({ text }) => answered(text), 4000)));
    await pause(3000);
    for (const socket of held) socket.end();
  },

  'nine of the largest asset at a time, and readers that do not read': async ({ viewer, asset }) => {
    const read = () =>
      viewer.ask('GET', `/assets/${asset}`, undefined, { headers: { 'Accept-Encoding': 'identity' } });
    await times(9, 9, read);
    const head = `GET /api/assets/${asset} HTTP/1.1\r\nHost: localhost\r\nCookie: ${viewer.cookie}\r\n\r\n`;
    const slow = Array.from({ length: 24 }, () => {
      const socket = viewer.raw(head);
      socket.socket.pause();
      return socket;
    });
    await pause(2000);
    for (const socket of slow) socket.end();
  },

  'parcels of very much, and searches': async ({ editor, viewer, project, followed }) => {
    await times(2, 2, () => editor.ask('GET', `/effects/${followed}/parcel`));
    await times(8, 4, () => viewer.ask('GET', `/projects/${project}/search?text=e`));
  },

  'thumbnails that state more than they may': async (field) => {
    const large = png(1100, 4);
    await times(60, 6, () => field.editor.ask('PUT', `/effects/${field.effect.id}/picture?revision=1`, large));
    const kept = {
      name: 'x',
      seconds: 0,
      document: newEffect('x', 1),
      picture: Buffer.from(large).toString('base64'),
    };
    await times(20, 4, () => field.editor.ask('POST', `/effects/${field.effect.id}/tray`, kept));
  },

  'pictures at the limit of what is read, and beyond': async ({ editor, project }) => {
    const [most, beyond] = [png(8192, 4096), png(8192, 4100)];
    await times(2, 2, () => editor.ask('POST', `/projects/${project}/assets?name=most.png`, most));
    await times(10, 4, () => editor.ask('POST', `/projects/${project}/assets?name=beyond.png`, beyond));
  },

  'nine hundred sockets of one viewer': async ({ viewer, effect }) => {
    const open = () =>
      viewer.raw(upgrade(`/api/effects/${effect.id}/live?window=${randomUUID()}`, { Cookie: viewer.cookie }));
    for (let round = 0; round < 30; round++) {
      const sockets = Array.from({ length: 30 }, open);
      await pause(60);
      for (const socket of sockets) socket.end();
    }
  },

  'sockets of those who may not watch': async ({ nobody, outsider, effect, leak }) => {
    for (const who of [nobody, outsider])
      await times(40, 8, async () => {
        const socket = who.raw(
          upgrade(`/api/effects/${effect.id}/live?window=${randomUUID()}`, { Cookie: who.cookie }),
        );
        const { text } = await socket.until(({ text }) => answered(text), 3000);
        if (text.startsWith('HTTP/1.1 101')) leak('a socket was opened for somebody who may not watch');
        socket.end();
      });
  },

  'uploads that stop half-way': async ({ editor, project }) => {
    const head = `POST /api/projects/${project}/assets?name=x.png HTTP/1.1\r\nHost: localhost\r\nCookie: ${editor.cookie}\r\nContent-Length: 120000000\r\n\r\n`;
    const sockets = Array.from({ length: 20 }, () => editor.raw(head).send(new Uint8Array(8_000_000)));
    await pause(3000);
    for (const socket of sockets) socket.end();
  },

  'figures that state fifteen million indices': async ({ editor, project }) => {
    const glb = boastingGlb();
    await times(60, 6, () => editor.ask('POST', `/projects/${project}/assets?name=x.glb`, glb));
  },

  'guessed passwords, with a made-up way through proxies': async ({ from, leak }) => {
    await times(240, 10, async (n) => {
      const headers = { 'X-Forwarded-For': `10.${n % 250}.1.1` };
      const name = ['Sedge', 'Vi', 'V\u0130', 'nobody'][n % 4];
      const { status } = await from(n).ask('POST', '/session', { name, password: `guess ${n}` }, { headers });
      if (status === 200) leak('a guessed password was right');
    });
  },

  'everything that is read, by those who may not': async ({ nobody, outsider, project, effect, asset, leak }) => {
    const paths = [
      `/projects/${project}`,
      `/projects/${project}/members`,
      `/projects/${project}/deleted`,
      `/projects/${project}/search?text=e`,
      `/effects/${effect.id}`,
      `/effects/${effect.id}/edits?revision=1&head=${effect.head}`,
      `/effects/${effect.id}/revisions`,
      `/effects/${effect.id}/revisions/1`,
      `/effects/${effect.id}/tray`,
      `/effects/${effect.id}/picture`,
      `/effects/${effect.id}/parcel`,
      `/assets/${asset}`,
    ];
    for (const who of [nobody, outsider])
      await times(paths.length * 10, 8, async (n) => {
        const path = paths[n % paths.length]!;
        const { status } = await who.ask('GET', path);
        if (status < 400 && status !== 0) leak(`GET ${path.split('?')[0]} was answered ${status}`);
      });
    const { text } = await outsider.ask('GET', '/projects');
    if (text.includes(project)) leak('the list of projects has one that is not theirs');
  },

  'everything that is changed, by a viewer': async ({ viewer, project, effect, asset, leak }) => {
    const acts: [string, string, unknown][] = [
      ['POST', `/effects/${effect.id}/edits`, { revision: 1, head: effect.head, edits: [] }],
      ['POST', `/effects/${effect.id}/siblings`, { name: 'x' }],
      ['PUT', `/effects/${effect.id}/picture?revision=1`, png(4, 4)],
      ['POST', `/effects/${effect.id}/tray`, { name: 'x' }],
      ['DELETE', `/effects/${effect.id}`, undefined],
      ['POST', `/projects/${project}/effects`, { document: newEffect('x', 1) }],
      ['POST', `/projects/${project}/assets?name=x.png`, png(4, 4)],
      ['POST', `/projects/${project}/parcels`, new Uint8Array(100)],
      ['PUT', `/projects/${project}/members`, { name: 'Bogling', role: 'owner' }],
      ['DELETE', `/projects/${project}/assets/${asset}`, undefined],
      ['PATCH', `/projects/${project}`, { name: 'x' }],
      ['DELETE', `/projects/${project}`, undefined],
    ];
    await times(acts.length * 15, 8, async (n) => {
      const [method, path, body] = acts[n % acts.length]!;
      const { status }: Answered = await viewer.ask(method, path, body);
      if (status > 0 && status < 400) leak(`${method} by a viewer was answered ${status}`);
    });
  },

  'what a database cannot keep': async ({ editor, project, effect }) => {
    await times(240, 8, (n) =>
      [
        () => editor.ask('POST', '/projects', { name: 'a\0b' }),
        () => editor.ask('POST', '/projects', { name: '\ud800' }),
        () => editor.ask('POST', `/projects/${project}/effects`, { document: newEffect('a\0b', 1) }),
        () => editor.ask('POST', `/projects/${project}/assets?name=%00.png`, png(2, 2)),
        () => editor.ask('GET', `/effects/${effect.id}/edits?revision=4294967296&head=${effect.head}`),
        () => editor.ask('GET', `/effects/${effect.id}/revisions/2147483648`),
      ][n % 6]!(),
    );
  },

  'two owners who leave at once': async ({ owner, editor }) => {
    for (let n = 0; n < 30; n++) {
      const id = fieldOf((await owner.ask('POST', '/projects', { name: `P${n}` })).text, 'id');
      const members = `/projects/${id}/members`;
      await owner.ask('PUT', members, { name: 'Tallow', role: 'owner' });
      await Promise.all([
        owner.ask('PUT', members, { name: 'Sedge', role: 'viewer' }),
        editor.ask('PUT', members, { name: 'Tallow', role: 'viewer' }),
      ]);
    }
  },

  'effects that are linked into each other at once, and one that sixty follow': async (field) => {
    const { editor, project, followed } = field;
    const parse = (text: string) => ({
      id: fieldOf(text, 'id'),
      revision: Number(fieldOf(text, 'revision')),
      head: fieldOf(text, 'head'),
    });
    for (let n = 0; n < 10; n++) {
      const made = await times(2, 2, async (k) =>
        parse((await editor.ask('POST', `/projects/${project}/effects`, { document: newEffect(`L${k}`, 1) })).text),
      );
      await Promise.all(
        made.map(({ id, revision, head }, k) => {
          const draft = newEffect(`L${k}`, 1);
          linkEffect(draft, 'inner', made[1 - k]!.id, newEffect(`L${1 - k}`, 1));
          const changes = [{ path: ['groups'], before: newEffect('x', 1).groups, after: draft.groups }];
          return editor.ask('POST', `/effects/${id}/edits`, {
            revision,
            head,
            edits: [{ id: randomUUID(), changes, labels: [] }],
          });
        }),
      );
    }
    for (let n = 0; n < 5; n++) {
      const { text } = await editor.ask('GET', `/effects/${followed}`);
      const [revision, head] = [fieldOf(text, 'revision'), fieldOf(text, 'head')];
      await editor.ask('POST', `/effects/${followed}/edits`, {
        revision: Number(revision),
        head,
        edits: [{ id: randomUUID(), changes: [{ path: ['seed'], after: n + 10 }], labels: [] }],
      });
    }
  },
};
