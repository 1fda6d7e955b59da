import { GuestStage } from '@jinx/stage';
import {
  Vector3,
  type DepthTexture,
  type Object3D,
  type PerspectiveCamera,
  type Texture,
  type WebGLRenderer,
} from 'three';
import type { Playing } from '../api.ts';
import { PlayerEnd, type Drawn, type WorkerEnd } from '../canvas/playerEnd.ts';
import { startThreads } from '../canvas/threads.ts';
import type { SceneEffects, SceneOptions } from './api.ts';
import { Following } from './follow.ts';
import code from '../workerCode.ts';

const LIGHTS = 4;
const LOOK_EVERY_MILLISECONDS = 100;

class PageEffects extends PlayerEnd implements SceneEffects {
  readonly #stage: GuestStage;
  #lookedAt = -Infinity;
  readonly #following = new Following();

  constructor(
    renderer: WebGLRenderer,
    end: WorkerEnd,
    isShared: boolean,
    { lights = LIGHTS, quality }: SceneOptions,
  ) {
    super(end, isShared, (told) => this.#draw(told));
    this.#stage = new GuestStage(renderer, lights, (sentence) => console.error(sentence));
    if (quality) this.setQuality(quality);
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
    this.#lookFrom(camera);
    this.#stage.update(camera);
  }
  /** Says where it is seen from, a few times a second: far effects go to lower tiers, and none is drawn out of sight. */
  #lookFrom(camera: PerspectiveCamera): void {
    const now = performance.now();
    if (now - this.#lookedAt < LOOK_EVERY_MILLISECONDS) return;
    this.#lookedAt = now;
    const position = camera.getWorldPosition(new Vector3());
    const target = camera.getWorldDirection(new Vector3()).add(position);
    const fieldOfView = camera.getEffectiveFOV();
    this.tell({ kind: 'size', width: camera.aspect, height: 1 });
    this.tell({ kind: 'camera', camera: { position: position.toArray(), target: target.toArray(), fieldOfView } });
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
