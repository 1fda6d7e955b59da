import type { InjectionKey, Ref } from 'vue';
import type { AssetSummary } from '../api';
import type { StageView } from '@jinx/stage';
import type { Engine } from '../engine/engine';
import type { LayerActs } from './rulers/useLayerActs';

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

/** What pulling a handle does. */
export type Tool = 'move' | 'turn' | 'size';
export const TOOL: InjectionKey<Ref<Tool>> = Symbol('tool');

/** How the stage shows the effect. */
export interface Shown {
  readonly view: Ref<StageView>;
  readonly showGuides: Ref<boolean>;
  readonly follows: Ref<boolean>;
  readonly isRaw: Ref<boolean>;
  readonly isDim: Ref<boolean>;
  /** Whether every change plays the effect again from its beginning. */
  readonly replays: Ref<boolean>;
}
export const SHOWN: InjectionKey<Shown> = Symbol('shown');

/** A picture or video to compare with, kept with the project. */
export const REFERENCE: InjectionKey<{
  /** What is shown. */
  readonly file: Ref<File | null>;
  /** The name of what the project keeps; '' without. */
  readonly kept: Readonly<Ref<string>>;
  readonly bring: (file: File) => Promise<void>;
  readonly show: () => Promise<void>;
  readonly remove: () => Promise<void>;
}> = Symbol('reference');

/** What is done with rows of layers. */
export const LAYER_ACTS: InjectionKey<LayerActs> = Symbol('layer acts');
