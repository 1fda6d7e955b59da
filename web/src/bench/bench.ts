import type { InjectionKey, Ref } from 'vue';
import type { AssetSummary } from '../api';
import type { Engine } from '../engine/engine';

/** The engine of the bench that a component stands in. */
export const ENGINE: InjectionKey<Engine> = Symbol('engine');

/** The step of a look that is seen alone. */
export const ALONE: InjectionKey<Ref<{ readonly layer: string; readonly step: string } | null>> = Symbol('alone');

/** Hears when a number in a sentence is being dragged, and when no more: of what moves particles, the others are to be compared with. */
export const DRAGS: InjectionKey<(isDragged: boolean) => void> = Symbol('drags');

/** Takes a file into the project, and tells when it could not; null then. */
export const BRING: InjectionKey<(file: File) => Promise<AssetSummary | null>> = Symbol('bring');

/** The files of the sample kit, and taking one of them into the project; null when it could not. */
export const KIT: InjectionKey<{
  readonly files: Readonly<Ref<readonly string[]>>;
  readonly bring: (file: string) => Promise<AssetSummary | null>;
}> = Symbol('kit');

/** What the project has that can stand on the stage or be met. */
export const ASSETS: InjectionKey<Readonly<Ref<readonly AssetSummary[]>>> = Symbol('assets');

/** What may stand below the stage. */
export type Below = 'rulers' | 'living' | 'time' | 'words' | 'compared' | 'sheet' | 'history' | 'tray';

/** What stands below the stage now. */
export const BELOW: InjectionKey<Ref<Below>> = Symbol('below');
