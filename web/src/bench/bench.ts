import type { InjectionKey, Ref } from 'vue';
import type { AssetSummary } from '../api';
import type { Engine } from '../engine/engine';

/** The engine of the bench that a component stands in. */
export const ENGINE: InjectionKey<Engine> = Symbol('engine');

/** What the project has that can stand on the stage or be met. */
export const ASSETS: InjectionKey<Readonly<Ref<readonly AssetSummary[]>>> = Symbol('assets');
