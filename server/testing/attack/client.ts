import { request } from 'node:http';
import { RawSocket } from '../raw.ts';

export interface Answered {
  /** 0 where there was no answer. */
  readonly status: number;
  readonly text: string;
}

/** Letters of an answer that are kept: the rest is read and let go. */
const MOST_KEPT = 4096;

/** The first field of a name in the text of an answer, which may be cut short. */
export const fieldOf = (text: string, name: string): string =>
  new RegExp(`"${name}":"?([^",}]+)`).exec(text)?.[1] ?? '';

/** Somebody who attacks: from an address of their own, with a cookie or without. */
export class Attacker {
  readonly port: number;
  readonly address: string;
  readonly cookie: string;
  requests = 0;

  constructor(port: number, address: string, cookie = '') {
    [this.port, this.address, this.cookie] = [port, address, cookie];
  }

  ask(
    method: string,
    path: string,
    body?: unknown,
    { headers = {}, milliseconds = 60_000 }: { headers?: Record<string, string>; milliseconds?: number } = {},
  ): Promise<Answered> {
    this.requests++;
    const bytes = body === undefined ? null : body instanceof Uint8Array ? body : Buffer.from(JSON.stringify(body));
    return new Promise((done) => {
      const asked = request({
        method,
        path: `/api${path}`,
        port: this.port,
        host: '127.0.0.1',
        localAddress: this.address,
        agent: false,
        headers: {
          Host: 'localhost',
          ...(this.cookie ? { Cookie: this.cookie } : {}),
          ...(bytes ? { 'Content-Length': String(bytes.length) } : {}),
          ...headers,
        },
      });
      asked.setTimeout(milliseconds, () => asked.destroy());
      asked.once('error', () => done({ status: 0, text: '' }));
      asked.once('response', (response) => {
        let text = '';
        response.on('data', (part: Buffer) => {
          if (text.length < MOST_KEPT) text += part.toString('latin1');
        });
        const end = () => done({ status: response.statusCode ?? 0, text });
        response.once('end', end);
        response.once('error', end);
      });
      asked.end(bytes);
    });
  }

  /** A connection that does only what it is told. */
  raw(text?: string | Uint8Array): RawSocket {
    this.requests++;
    const socket = new RawSocket(this.port, this.address);
    return text === undefined ? socket : socket.send(text);
  }
}

/** Does something so many times, `at` of them at once. */
export async function times<T>(count: number, at: number, work: (n: number) => Promise<T>): Promise<T[]> {
  const results: T[] = [];
  let next = 0;
  const lane = async () => {
    for (let n = next++; n < count; n = next++) results[n] = await work(n);
  };
  await Promise.all(Array.from({ length: Math.min(at, count) }, lane));
  return results;
}

export const pause = (milliseconds: number): Promise<void> => new Promise((later) => setTimeout(later, milliseconds));
