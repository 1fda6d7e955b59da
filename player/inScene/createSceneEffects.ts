import { GuestStage } from '@jinx/stage';
import type { DepthTexture, Object3D, PerspectiveCamera, Texture, WebGLRenderer } from 'three';
import type { Playing } from '../api.ts';
import { PlayerEnd, type Drawn, type WorkerEnd } from '../canvas/playerEnd.ts';
import { startThreads } from '../canvas/threads.ts';
import type { SceneEffects, SceneOptions } from './api.ts';
import { Following } from './follow.ts';
import code from '../workerCode.ts';

const LIGHTS = 4;

class PageEffects extends PlayerEnd implements SceneEffects {
  readonly #stage: GuestStage;
  readonly #following = new Following();

  constructor(renderer: WebGLRenderer, end: WorkerEnd, isShared: boolean, { lights = LIGHTS }: SceneOptions) {
    super(end, isShared, (told) => this.#draw(told));
    this.#stage = new GuestStage(renderer, lights, (sentence) => console.error(sentence));
  }

  get object(): Object3D {
    return this.#stage.object;
  }

  #draw(told: Drawn): void {
    if (told.kind === 'scene') this.#stage.take(told.order);
    else if (told.kind === 'frames') this.#stage.take(told);
    else if (told.kind === 'frame') this.#stage.takeFrame(told.buffer);
    else this.#stage.setPace(told);
  }

  follow(playing: Playing, object: Object3D | null): void {
    this.#following.set(playing, object);
  }
  update(camera: PerspectiveCamera): void {
    this.#following.update();
    this.#stage.update(camera);
  }
  setDepth(depth: DepthTexture | null, camera: PerspectiveCamera): void {
    this.#stage.setDepth(depth, camera);
  }
  setBehind(picture: Texture | null): void {
    this.#stage.setBehind(picture);
  }
  pause(): void {
    this.tell({ kind: 'pause', isPaused: true });
  }
  resume(): void {
    this.tell({ kind: 'pause', isPaused: false });
  }
  override dispose(): void {
    this.#stage.dispose();
    super.dispose();
  }
}

/** Plays effects among what a three.js renderer draws. Put `object` into the scene, and call `update` before each picture. */
export function createSceneEffects(renderer: WebGLRenderer, options: SceneOptions = {}): SceneEffects {
  const { end, helper } = startThreads(code);
  const effects = new PageEffects(renderer, end, helper !== null, options);
  effects.tell({ kind: 'start', canvas: null, helper, width: 1, height: 1, figures: false }, helper ? [helper] : []);
  return effects;
}
