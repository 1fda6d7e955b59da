/** Where the bytes of a file go, piece by piece. */
export interface Sink {
  readonly bytes: number;
  /** @throws an error with a sentence where there is no more room. */
  write(piece: Uint8Array, at?: number): void;
  /** The whole file. Its bytes stay where they are until `forgetFiles`. */
  close(): Promise<Blob>;
  /** Nothing of it is left. */
  abandon(): Promise<void>;
}

const FOLDER = 'jinx-film';
const noRoom = (error: unknown): Error =>
  (error as DOMException).name === 'QuotaExceededError'
    ? new Error(
        'There is no more room on this disk for the file. Nothing of it was kept: free some, or take fewer or smaller pictures.',
      )
    : (error as Error);

/** Keeps a file in the room that this page has on the disk. */
class DiskSink implements Sink {
  bytes = 0;
  readonly #folder: FileSystemDirectoryHandle;
  readonly #file: FileSystemFileHandle;
  readonly #handle: FileSystemSyncAccessHandle;

  constructor(folder: FileSystemDirectoryHandle, file: FileSystemFileHandle, handle: FileSystemSyncAccessHandle) {
    [this.#folder, this.#file, this.#handle] = [folder, file, handle];
  }

  write(piece: Uint8Array, at = this.bytes): void {
    try {
      const written = this.#handle.write(piece as Uint8Array<ArrayBuffer>, { at });
      if (written < piece.length) throw new DOMException('the disk is full', 'QuotaExceededError');
    } catch (error) {
      throw noRoom(error);
    }
    this.bytes = Math.max(this.bytes, at + piece.length);
  }

  async close(): Promise<Blob> {
    try {
      this.#handle.flush();
    } catch (error) {
      throw noRoom(error);
    }
    this.#handle.close();
    return this.#file.getFile();
  }

  async abandon(): Promise<void> {
    this.#handle.close();
    await this.#folder.removeEntry(this.#file.name).catch(() => undefined);
  }
}

/** Keeps a file in memory, where the page has no room on the disk. */
class MemorySink implements Sink {
  #pieces: Uint8Array<ArrayBuffer>[] = [];
  bytes = 0;

  write(piece: Uint8Array, at = this.bytes): void {
    if (at === this.bytes) this.#pieces.push(piece.slice());
    else {
      // Something before is written again: headers that are known at last.
      const whole = new Uint8Array(Math.max(this.bytes, at + piece.length));
      let start = 0;
      for (const each of this.#pieces) {
        whole.set(each, start);
        start += each.length;
      }
      whole.set(piece, at);
      this.#pieces = [whole];
    }
    this.bytes = Math.max(this.bytes, at + piece.length);
  }
  close(): Promise<Blob> {
    return Promise.resolve(new Blob(this.#pieces));
  }
  abandon(): Promise<void> {
    this.#pieces = [];
    return Promise.resolve();
  }
}

/** A new file. */
export async function openSink(): Promise<Sink> {
  try {
    const root = await navigator.storage.getDirectory();
    const folder = await root.getDirectoryHandle(FOLDER, { create: true });
    const file = await folder.getFileHandle(`${crypto.randomUUID()}.part`, { create: true });
    return new DiskSink(folder, file, await file.createSyncAccessHandle());
  } catch {
    return new MemorySink();
  }
}

/** Takes away what earlier files left on the disk. */
export async function forgetFiles(): Promise<void> {
  const root = await navigator.storage?.getDirectory?.().catch(() => null);
  await root?.removeEntry(FOLDER, { recursive: true }).catch(() => undefined);
}
