import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { readAnswer, routeOf } from '@jinx/core/answers';
import { apply, diff, structuredCopy, type Change, type Effect } from '@jinx/core/document';
import { connect, DEFAULTS, migrate, serve, type Database, type Serving, type Settings } from '../index.ts';

/** Where ./jinx test has PostgreSQL; without it these tests are left out. */
export const DATABASE_URL = process.env['JINX_TEST_DATABASE_URL'];

export interface Answer {
  readonly status: number;
  // Each test knows what it asked for.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly body: any;
}

/** An effect as somebody has it open: where it stood, and what they made of it. */
export interface Opened {
  readonly id: string;
  readonly revision: number;
  readonly head: string;
  readonly document: Effect;
}

/** A server of its own on a database of its own, in the real PostgreSQL of the tests. */
export class TestServer {
  readonly database: Database;
  readonly base: string;
  readonly #serving: Serving;
  readonly databaseUrl: string;
  private constructor(database: Database, databaseUrl: string, serving: Serving) {
    this.database = database;
    this.databaseUrl = databaseUrl;
    this.#serving = serving;
    this.base = `http://127.0.0.1:${(serving.server.address() as AddressInfo).port}/api`;
  }

  /** @param name of the database, made anew. */
  static async start(name: string, settings: Partial<Settings> = {}): Promise<TestServer> {
    const admin = connect(DATABASE_URL!);
    await admin.query(`drop database if exists ${name} with (force)`);
    await admin.query(`create database ${name}`);
    await admin.end();
    const url = DATABASE_URL!.replace(/\/\w+$/, `/${name}`);
    const database = connect(url);
    database.on('error', () => undefined);
    await migrate(database);
    return new TestServer(
      database,
      url,
      await serve(database, pino({ level: 'silent' }), {
        ...DEFAULTS,
        port: 0,
        costlyPerMinute: 100_000,
        connections: 1000,
        connectionsPerAddress: 1000,
        ...settings,
      }),
    );
  }

  get port(): number {
    return (this.#serving.server.address() as AddressInfo).port;
  }

  /** Connections that are open. */
  connections(): Promise<number> {
    return new Promise((done, fail) =>
      this.#serving.server.getConnections((error, count) => (error ? fail(error) : done(count))),
    );
  }

  async stop(): Promise<void> {
    await this.#serving.stop();
    await this.database.end();
  }

  async ask(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const raw = body instanceof Uint8Array;
    const answer = await fetch(this.base + path, {
      method,
      headers,
      body: body === undefined ? undefined : raw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
    });
    const text = await answer.text();
    const read = text ? JSON.parse(text) : null;
    // Every answer is what the page can read.
    const route = answer.ok ? await routeOf(method, path) : null;
    if (route) await readAnswer(route, read);
    return { status: answer.status, body: read };
  }

  async makeProject(name: string): Promise<string> {
    return (await this.ask('POST', '/projects', { name })).body.id;
  }
  async makeEffect(projectId: string, document: Effect): Promise<{ id: string; revision: number; head: string }> {
    return (await this.ask('POST', `/projects/${projectId}/effects`, { document })).body;
  }
  async open(id: string): Promise<Opened> {
    return (await this.ask('GET', `/effects/${id}`)).body;
  }
  /** Sends what was changed of an effect since it was opened. */
  send(opened: Opened, changes: readonly Change[], id = randomUUID(), labels = ['change it']): Promise<Answer> {
    const { revision, head } = opened;
    return this.ask('POST', `/effects/${opened.id}/edits`, { revision, head, edits: [{ id, changes, labels }] });
  }
  /** Changes an effect as somebody does who has it open: now, or since they opened it. */
  async change(
    of: string | Opened,
    recipe: (draft: Effect) => void,
    labels?: string[],
  ): Promise<Answer & { changed: Effect }> {
    const opened = typeof of === 'string' ? await this.open(of) : of;
    const draft = structuredCopy(opened.document);
    recipe(draft);
    const changes = diff(opened.document, draft);
    const answer = await this.send(opened, changes, randomUUID(), labels);
    return { ...answer, changed: apply(opened.document, changes) };
  }
  /** Waits until every effect has taken what it has yet to take of those it follows. */
  async settle(): Promise<void> {
    const waiting = async () =>
      Number((await this.database.query('select count(*) from following where failed is null')).rows[0].count);
    for (let tries = 0; (await waiting()) > 0; tries++) {
      if (tries > 500) throw new Error('the followers do not come to an end');
      await new Promise((later) => setTimeout(later, 20));
    }
  }
  async count(table: string): Promise<number> {
    return Number((await this.database.query(`select count(*) from ${table}`)).rows[0].count);
  }
}
