import { readCanonicalPicture, readRig } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { StagePicture } from '@jinx/stage';
import { api, ApiError } from '../api';
import { AssetCache } from './assets';
import { StageHub } from './stageHub';
import { takeBegun } from './early';
import { BROWSER_THREADS, type Threads } from './threads';

/** Where threads and assets come from: the browser and the server, unless a test says otherwise. */
export interface EngineSources {
  readonly threads: Threads;
  /** The canonical bytes of an asset. */
  readonly asset: (hash: string) => Promise<Uint8Array>;
  /** The stage's worker, where it has begun. */
  readonly stages?: StageHub;
}
const BROWSER_SOURCES: EngineSources = { threads: BROWSER_THREADS, asset: (hash) => api.asset(hash) };
/** The same, of which part may have begun. */
export const begunSources = (): EngineSources => ({ ...BROWSER_SOURCES, ...takeBegun() });

const isFinal = (error: unknown): boolean => !(error instanceof ApiError) || error.isFinal;

/**
 * What all that is computed and drawn on a page has in common: the stage's worker, and the assets, of which each is fetched
 * and read once and handed as it is to whichever worker needs it.
 */
export class SharedByPage {
  readonly threads: Threads;
  readonly stages: StageHub;
  readonly rigs: AssetCache<Rig>;
  readonly pictures: AssetCache<StagePicture>;
  readonly #lateListeners = new Set<() => void>();

  constructor({ threads, asset, stages }: EngineSources = BROWSER_SOURCES) {
    this.threads = threads;
    this.stages = stages ?? new StageHub(() => threads.stage());
    const onLate = () => this.#lateListeners.forEach((heard) => heard());
    this.rigs = new AssetCache({ fetch: async (hash) => readRig(await asset(hash)), isFinal, onLate });
    this.pictures = new AssetCache({
      fetch: async (hash) => ({ hash, texture: readCanonicalPicture(await asset(hash)) }),
      isFinal,
      onLate,
    });
  }

  /** Hears when an asset has come that nobody waited for any more. Returns what ends it. */
  listenForLate(heard: () => void): () => void {
    this.#lateListeners.add(heard);
    return () => this.#lateListeners.delete(heard);
  }
}
