import type { InjectionKey } from 'vue';
import type { Engine } from '../engine/engine';

/** The engine of the bench that a component stands in. */
export const ENGINE: InjectionKey<Engine> = Symbol('engine');
