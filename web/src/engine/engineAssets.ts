import type { Effect } from '@jinx/core/document';
import { rigsOf } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import { pictureHashes } from '@jinx/player/scene';
import { shallowRef } from 'vue';
import type { AssetProblem } from './assets';
import type { SharedByPage } from './shared';

/** The figures, meshes and pictures of what is shown: what of it is here, and what is missing. */
export class EngineAssets {
  readonly rigs: SharedByPage['rigs'];
  readonly pictures: SharedByPage['pictures'];
  /** Assets of the effect that could not be had, by hash, with the reason. */
  readonly missing = shallowRef<ReadonlyMap<string, string>>(new Map());

  constructor({ rigs, pictures }: SharedByPage) {
    [this.rigs, this.pictures] = [rigs, pictures];
  }

  /** Gets the assets an effect needs; null when all that can be had are here. */
  prepare(effect: Effect): Promise<void> | null {
    const waits = [this.rigs.ensure(rigsOf(effect)), this.pictures.ensure(pictureHashes(effect))].filter(
      (wait) => wait !== null,
    );
    return waits.length > 0 ? Promise.all(waits).then(() => undefined) : null;
  }

  /** The rigs of an effect that are here. */
  rigsOf(effect: Effect): [string, Rig][] {
    return rigsOf(effect).flatMap((hash): [string, Rig][] => {
      const rig = this.rigs.get(hash);
      return rig ? [[hash, rig]] : [];
    });
  }

  /** Finds out which assets of the effect on the bench are missing. */
  check(effect: Effect): void {
    const problems: [string, AssetProblem | undefined][] = [
      ...rigsOf(effect).map((hash) => [hash, this.rigs.problem(hash)] as [string, AssetProblem | undefined]),
      ...pictureHashes(effect).map(
        (hash) => [hash, this.pictures.problem(hash)] as [string, AssetProblem | undefined],
      ),
    ];
    const missing = new Map(problems.flatMap(([hash, problem]) => (problem ? [[hash, problem.sentence]] : [])));
    if ([...missing].toString() !== [...this.missing.value].toString()) this.missing.value = missing;
  }

  /** Asks again for what an effect misses: where it may have come meanwhile, or all of it. */
  retry(effect: Effect, isFinalToo: boolean): void {
    if (this.missing.value.size === 0) return;
    this.rigs.retry(rigsOf(effect), isFinalToo);
    this.pictures.retry(pictureHashes(effect), isFinalToo);
  }
}
