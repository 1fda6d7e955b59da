import { randomUUID } from 'node:crypto';
import pg from 'pg';
import {
  apply,
  canonicalText,
  collectionOf,
  newEffect,
  newLayer,
  parseEffect,
  type Change,
  type Effect,
} from '@jinx/core/document';
import { dropCluster, killCluster, startCluster } from '../../scripts/database/cluster.mjs';
import { ServerProcess } from './serverProcess.ts';

/** How often the server and the database are killed, and where they run meanwhile. */
export interface KillPlan {
  readonly kills: number;
  readonly port: number;
  readonly databasePort: number;
}

export interface KillOutcome {
  readonly kills: number;
  /** Edits that were acknowledged. */
  readonly acknowledged: number;
  /** Edits a second, over the time the server answered. */
  readonly editsPerSecond: number;
  /** Acknowledged edits that are not there, or there twice. */
  readonly lost: number;
  /** Effects whose document cannot be read, or is not what their edits make of it. */
  readonly broken: number;
  /** Siblings that are not at the end as what they follow. */
  readonly behind: number;
  readonly syncs: Readonly<Record<string, string>>;
}

const CLUSTER = 'kill';
const CLIENTS = 4;
/** A client's edits come so far apart; it waits for each. */
const PAUSE_MILLISECONDS = 60;
/** A kill comes at a random moment of so many milliseconds of work. */
const [FIRST, LAST] = [250, 1000];
const SYNCS = ['fsync', 'synchronous_commit', 'full_page_writes'] as const;
const pause = (milliseconds: number) => new Promise<void>((later) => setTimeout(later, milliseconds));

/** Somebody who changes one layer of an effect without end, and sends each change until it is acknowledged. */
class Client {
  readonly acknowledged: string[] = [];
  readonly #address: string;
  readonly #effectId: string;
  readonly #layer: string;
  #at: { revision: number; head: string };
  #count = 1;
  #isOver = false;
  #running: Promise<void> = Promise.resolve();

  constructor(address: string, effectId: string, layer: string, at: { revision: number; head: string }) {
    [this.#address, this.#effectId, this.#layer, this.#at] = [address, effectId, layer, at];
  }

  start(): void {
    this.#running = this.#work();
  }
  async stop(): Promise<void> {
    this.#isOver = true;
    await this.#running;
  }

  async #work(): Promise<void> {
    const path = ['layers', 'byId', this.#layer, 'settings', 'births.rate', 'base', 'value'];
    while (!this.#isOver) {
      const edit = {
        id: randomUUID(),
        changes: [{ path, before: this.#count, after: this.#count + 1 }],
        labels: ['rate'],
      };
      await this.#send(edit);
      this.#count++;
      await pause(PAUSE_MILLISECONDS);
    }
  }

  /** Sends one edit until it is acknowledged. */
  async #send(edit: { id: string }): Promise<void> {
    while (!this.#isOver) {
      const { revision, head } = this.#at;
      const answer = await fetch(`${this.#address}/api/effects/${this.#effectId}/edits`, {
        method: 'POST',
        body: JSON.stringify({ revision, head, edits: [edit] }),
        signal: AbortSignal.timeout(10_000),
      }).catch(() => null);
      const body =
        answer &&
        ((await answer.json().catch(() => null)) as { revision: number; head: string; sentence?: string } | null);
      if (answer?.ok && body) {
        this.#at = { revision: body.revision, head: body.head };
        this.acknowledged.push(edit.id);
        return;
      }
      if (answer && body && answer.status < 500) throw new Error(`an edit was refused: ${body.sentence}`);
      await pause(PAUSE_MILLISECONDS);
    }
  }
}

function effectOf(names: readonly string[]): Effect {
  const effect = newEffect('Killed', 1);
  effect.layers = collectionOf(
    names.map((name, n) => {
      const layer = newLayer(name, n);
      layer.settings['births.rate'].base = { kind: 'fixed', value: 1 };
      return [name, layer];
    }),
  );
  return effect;
}

interface Made {
  readonly id: string;
  readonly revision: number;
  readonly head: string;
  readonly document: Effect;
}

async function makeEffects(address: string): Promise<Made[]> {
  const post = async (path: string, body: unknown) =>
    (await (await fetch(`${address}/api${path}`, { method: 'POST', body: JSON.stringify(body) })).json()) as {
      id: string;
      revision: number;
      head: string;
    };
  const project = await post('/projects', { name: 'Killed' });
  // Two work on one effect, two on one each.
  return Promise.all(
    [['a', 'b'], ['c'], ['d']].map(async (layers) => {
      const document = effectOf(layers);
      const { id, revision, head } = await post(`/projects/${project.id}/effects`, { document });
      return { id, revision, head, document };
    }),
  );
}

const SIBLINGS = 3;
const FOLLOW_MILLISECONDS = 60_000;

/** Effects that follow one, and change nothing of it. */
async function makeSiblings(address: string, of: Made): Promise<Made[]> {
  const siblings: Made[] = [];
  for (let n = 0; n < SIBLINGS; n++) {
    const name = `Sibling ${n}`;
    const body = JSON.stringify({ name });
    const made = await fetch(`${address}/api/effects/${of.id}/siblings`, { method: 'POST', body });
    const { id } = (await made.json()) as { id: string };
    siblings.push({ id, revision: 1, head: '', document: { ...of.document, name } });
  }
  return siblings;
}

/** Waits until all have followed. Returns how many are not as what they follow. */
async function behind(database: pg.Client, of: Made, siblings: readonly Made[]): Promise<number> {
  const waiting = async () => (await database.query('select 1 from following')).rowCount ?? 0;
  for (const until = Date.now() + FOLLOW_MILLISECONDS; Date.now() < until && (await waiting()) > 0;) await pause(100);
  const { rows } = await database.query<{ id: string; document: string }>(
    'select id, document from effects where id = any($1::uuid[])',
    [[of.id, ...siblings.map(({ id }) => id)]],
  );
  const layersOf = (id: string) =>
    canonicalText((JSON.parse(rows.find((row) => row.id === id)!.document) as Effect).layers);
  return siblings.filter(({ id }) => layersOf(id) !== layersOf(of.id)).length;
}

/** What of an effect is not as its edits make it. */
async function flaws(
  database: pg.Client,
  made: Made,
  acknowledged: readonly string[],
): Promise<{ lost: number; broken: number }> {
  const { rows } = await database.query<{ document: string; revision: number; head: string }>(
    'select document, revision, head from effects where id = $1',
    [made.id],
  );
  const edits = await database.query<{ id: string; revision: number; changes: string }>(
    'select id, revision, changes from edits where effect_id = $1 order by revision',
    [made.id],
  );
  const ids = edits.rows.map(({ id }) => id);
  const lost = acknowledged.filter((id) => ids.filter((one) => one === id).length !== 1).length;
  const isInOrder = edits.rows.every(({ revision }, n) => revision === n + 1);
  const last = edits.rows[edits.rows.length - 1]!;
  let broken = isInOrder && rows[0]!.revision === last.revision && rows[0]!.head === last.id ? 0 : 1;
  try {
    const replayed = edits.rows.reduce(
      (document, { changes }) => apply(document, JSON.parse(changes) as Change[]),
      made.document,
    );
    if (canonicalText(parseEffect(JSON.parse(rows[0]!.document))) !== canonicalText(replayed)) broken = 1;
  } catch {
    broken = 1;
  }
  return { lost, broken };
}

/**
 * Kills the server, then the database, each so many times at random moments, while four clients change effects without
 * end; starts them again and looks each time whether all that was acknowledged is there, and nothing by halves.
 */
export async function killRun(
  { kills, port, databasePort }: KillPlan,
  told: (sentence: string) => void = () => undefined,
): Promise<KillOutcome> {
  await dropCluster(CLUSTER);
  const url = await startCluster(CLUSTER, databasePort);
  const server = new ServerProcess(port, url);
  const clients: Client[] = [];
  let [lost, broken, working] = [0, 0, 0];
  const syncs: Record<string, string> = {};
  try {
    await server.start();
    const [shared, third, fourth] = (await makeEffects(server.address)) as [Made, Made, Made];
    const siblings = await makeSiblings(server.address, shared);
    const works = [
      [shared, 'a'],
      [shared, 'b'],
      [third, 'c'],
      [fourth, 'd'],
    ] as const;
    for (const [made, layer] of works.slice(0, CLIENTS))
      clients.push(new Client(server.address, made.id, layer, made));

    const look = async () => {
      const database = new pg.Client({
        connectionString: url,
        connectionTimeoutMillis: 10_000,
        query_timeout: 30_000,
      });
      await database.connect();
      // Those who work go on meanwhile: what is looked at is of one instant, after what they know.
      const known = clients.map(({ acknowledged }) => [...acknowledged]);
      await database.query('begin transaction isolation level repeatable read');
      for (const name of SYNCS)
        syncs[name] = (await database.query<{ [key: string]: string }>(`show ${name}`)).rows[0]![name]!;
      for (const made of [shared, third, fourth, ...siblings]) {
        const own = known.filter((_, n) => works[n]![0] === made).flat();
        const found = await flaws(database, made, own);
        lost += found.lost;
        broken += found.broken;
      }
      await database.end();
    };
    const untilKilled = async () => {
      const milliseconds = FIRST + Math.random() * (LAST - FIRST);
      working += milliseconds;
      await pause(milliseconds);
    };
    for (const client of clients) client.start();
    for (const what of ['server', 'database'] as const)
      for (let n = 1; n <= kills; n++) {
        await untilKilled();
        if (what === 'server') {
          await server.kill();
          await look();
          await server.start();
        } else {
          await killCluster(CLUSTER);
          await startCluster(CLUSTER, databasePort);
          await look();
          await server.answers();
        }
        told(
          `${what} killed ${n} of ${kills} times: ${clients.flatMap(({ acknowledged }) => acknowledged).length} acknowledged, ${lost} lost, ${broken} broken`,
        );
      }
    await Promise.all(clients.map((client) => client.stop()));
    const database = new pg.Client({ connectionString: url });
    await database.connect();
    const left = await behind(database, shared, siblings);
    await database.end();
    await look();
    const acknowledged = clients.flatMap((client) => client.acknowledged).length;
    return {
      kills: kills * 2,
      acknowledged,
      editsPerSecond: acknowledged / (working / 1000),
      lost,
      broken,
      behind: left,
      syncs,
    };
  } finally {
    await Promise.all(clients.map((client) => client.stop().catch(() => undefined)));
    await server.kill();
    await dropCluster(CLUSTER);
  }
}
