import { randomUUID } from 'node:crypto';
import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { mkdir, open, rm } from 'node:fs/promises';
import path from 'node:path';
import type { Context } from 'koa';
import { partsOf, type BodyLimit } from './body.ts';
import { Refusal } from './errors.ts';

/** Bytes of all uploads that lie on the disk at one time. */
const MOST_BYTES = 2 * 1024 ** 3;
/** Uploads of one person, or one address, at one time. */
const MOST_PER_OWNER = 4;

const busy = () =>
  new Refusal(503, 'busy', 'Too many files are being sent just now: try again in a moment.', { seconds: 5 });

/** Nothing is kept of what its sender has given up meanwhile. @throws Refusal, which nobody hears any more. */
export function mustBeWanted({ req }: Context): void {
  if (req.socket.destroyed) throw new Refusal(408, 'given-up', 'This was given up while it was looked through.');
}

/** A folder of files that are worked on: uploads, and what is made of them. Nothing in it outlives its request. */
export class Incoming {
  readonly #folder: string;
  readonly #perOwner = new Map<string, number>();
  #bytes = 0;

  constructor(folder: string) {
    this.#folder = folder;
  }

  /** Removes what a server that was killed left behind. */
  clear(): void {
    mkdirSync(this.#folder, { recursive: true, mode: 0o700 });
    for (const name of readdirSync(this.#folder))
      if (name.endsWith('.part')) rmSync(path.join(this.#folder, name), { recursive: true, force: true });
  }

  /** Lends a folder for as long as `work` takes. */
  async withFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
    const folder = path.join(this.#folder, `${randomUUID()}.part`);
    await mkdir(folder, { recursive: true, mode: 0o700 });
    try {
      return await work(folder);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  /** Writes a request's body into a file as it comes, and lends it for as long as `work` takes. @throws Refusal */
  async withUpload<T>(
    context: Context,
    owner: string,
    limit: BodyLimit,
    work: (upload: { file: string; folder: string; size: number }) => Promise<T>,
  ): Promise<T> {
    const own = this.#perOwner.get(owner) ?? 0;
    if (own >= MOST_PER_OWNER) throw busy();
    this.#perOwner.set(owner, own + 1);
    let size = 0;
    try {
      return await this.withFolder(async (folder) => {
        const file = path.join(folder, 'upload.part');
        const handle = await open(file, 'wx', 0o600);
        try {
          for await (const part of partsOf(context, limit)) {
            size += part.length;
            this.#bytes += part.length;
            if (this.#bytes > MOST_BYTES) throw busy();
            await handle.write(part);
          }
        } finally {
          await handle.close();
        }
        return work({ file, folder, size });
      });
    } finally {
      this.#bytes -= size;
      const left = this.#perOwner.get(owner)! - 1;
      if (left > 0) this.#perOwner.set(owner, left);
      else this.#perOwner.delete(owner);
    }
  }
}
