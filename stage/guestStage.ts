import * as THREE from 'three';
import { Frame, FrameReader, tripleBuffer } from '@jinx/core/simulation';
import { Drawings } from './drawings.ts';
import { newCommonUniforms } from './looks/light.ts';
import { Depths } from './passes/depths.ts';
import type { DrawnInto } from './passes/passes.ts';
import type { DrawnLayer, ToStage } from './protocol.ts';
import { Surroundings } from './surroundings.ts';

/** What a guest is told of a scene, beside frames. */
type GuestOrder = Extract<
  ToStage,
  { kind: 'figures' | 'pictures' | 'meshes' | 'layers' | 'lens' | 'air' | 'surround' | 'frames' }
>;

/** Lights that are put among those of the scene. */
const MOST_GUEST_LIGHTS = 8;

/** Draws frames among what somebody else draws: with their renderer, in their scene, seen by their camera. */
export class GuestStage {
  /** What is put into the scene. All stands in the world, wherever this hangs. */
  readonly object = new THREE.Group();
  readonly #into: DrawnInto;
  readonly #common = newCommonUniforms();
  readonly #camera = new THREE.PerspectiveCamera();
  readonly #surroundings = new Surroundings(this.#common);
  readonly #drawings: Drawings;
  readonly #depths = new Depths();
  readonly #lights: THREE.PointLight[];
  #reader: FrameReader | null = null;
  #frame: Frame | null = null;
  #step = -1;
  #since = 0;
  #pace = { isPlaying: true, stepsPerSecond: 60 };
  #layers: readonly DrawnLayer[] = [];

  /** @param lights how many of the effects' lights fall on what else is in the scene. */
  constructor(renderer: THREE.WebGLRenderer, lights: number, failed: (sentence: string) => void) {
    const [solids, overs] = [new THREE.Group(), new THREE.Group()];
    this.object.add(solids, overs);
    // Shaders draw in the world.
    this.object.matrixWorldAutoUpdate = false;
    this.#into = {
      ...{ renderer, solids, overs },
      behindIt: { value: null },
      pictureSize: { value: new THREE.Vector2(1, 1) },
      warm: (mesh, camera) => renderer.compileAsync(mesh, camera, this.#scene),
    };
    this.#drawings = new Drawings(
      this.#into,
      this.#common,
      this.#camera,
      () => undefined,
      () => undefined,
      failed,
      true,
    );
    this.#lights = Array.from({ length: Math.min(MOST_GUEST_LIGHTS, Math.max(0, lights)) }, () => {
      const light = new THREE.PointLight(0xffffff, 0);
      this.object.add(light);
      return light;
    });
  }

  /** The scene that it was put into. */
  get #scene(): THREE.Scene | null {
    let top: THREE.Object3D = this.object;
    while (top.parent) top = top.parent;
    return top instanceof THREE.Scene ? top : null;
  }

  take(order: GuestOrder): void {
    switch (order.kind) {
      case 'pictures':
        return this.#drawings.setPictures(order.pictures);
      case 'meshes':
        return this.#drawings.setMeshes(order.meshes);
      case 'layers':
        this.#layers = order.layers;
        return this.#setLayers();
      case 'surround':
        return this.#surroundings.set(order.surround);
      case 'frames':
        this.#reader = new FrameReader(tripleBuffer(order.buffer, order.bytes, order.address));
        return;
      default:
        // Figures, lens and air are the scene's own.
        return;
    }
  }

  /** Layers that need what the scene does not hand in are left out, and those of figures, which are not there. */
  #setLayers(): void {
    const [hasBehind, hasDepth] = [this.#into.behindIt.value !== null, this.#common.depths.value !== null];
    const isDrawn = ({ drawn, wraps }: DrawnLayer) =>
      drawn.kind !== 'body' && (drawn.kind !== 'haze' || hasBehind) && (!wraps || hasDepth);
    this.#drawings.set(this.#layers.filter(isDrawn));
    if (this.#frame) this.#drawings.load(this.#frame, this.#frame.rate);
  }

  /** A frame that was sent by itself. */
  takeFrame(buffer: ArrayBuffer): void {
    this.#show(new Frame(buffer), performance.now());
  }
  #show(frame: Frame, now: number): void {
    if (frame === this.#frame && frame.step === this.#step) return;
    [this.#frame, this.#step, this.#since] = [frame, frame.step, now];
    this.#drawings.load(frame, frame.rate);
  }

  setPace(pace: { isPlaying: boolean; stepsPerSecond: number }): void {
    this.#pace = pace;
  }

  /** Takes how deep the scene is without effects, from the same camera and as large as what is drawn into; or that it is not known. */
  setDepth(depth: THREE.DepthTexture | null, camera: THREE.PerspectiveCamera): void {
    const had = this.#common.depths.value !== null;
    if (depth) {
      const { width, height } = depth.image as { width: number; height: number };
      const { renderer } = this.#into;
      const before = renderer.getRenderTarget();
      this.#depths.take(renderer, depth, width, height, camera);
      renderer.setRenderTarget(before);
    }
    this.#common.depths.value = depth && this.#depths.texture;
    this.#drawings.setDepth(depth !== null);
    if (had !== (depth !== null)) this.#setLayers();
  }

  /** Takes a copy of the picture without what bends it, linear and as large as what is drawn into; or that there is none. */
  setBehind(picture: THREE.Texture | null): void {
    const had = this.#into.behindIt.value !== null;
    this.#into.behindIt.value = picture;
    const { width = 1, height = 1 } = (picture?.image ?? {}) as { width?: number; height?: number };
    this.#into.pictureSize.value.set(width, height);
    if (had !== (picture !== null)) this.#setLayers();
  }

  /** Moves all to the present instant, as that camera sees it: before each picture. */
  update(camera: THREE.PerspectiveCamera): void {
    const now = performance.now();
    const newest = this.#reader?.newest();
    if (newest) this.#show(newest, now);
    camera.updateMatrixWorld();
    this.#camera.matrixWorld.copy(camera.matrixWorld);
    this.#camera.position.setFromMatrixPosition(camera.matrixWorld);
    const { isPlaying, stepsPerSecond } = this.#pace;
    const share = isPlaying ? Math.min(1, ((now - this.#since) / 1000) * stepsPerSecond) : 1;
    this.#drawings.keepUp();
    const frame = this.#frame;
    if (!frame) return;
    this.#common.share.value = share;
    this.#common.rate.value = frame.rate;
    this.#drawings.takeReady(frame, frame.rate);
    this.#drawings.follow(share, frame.rate);
    this.#shine();
  }

  /** The strongest lights of the effects fall on the scene as its own do: by the square of the distance, up to their reach. */
  #shine(): void {
    const { lights, light_places, light_colours } = this.#common;
    this.#lights.forEach((light, n) => {
      const isOn = n < lights.value;
      const colour = light_colours.value[n]!;
      const strength = isOn ? Math.max(colour.x, colour.y, colour.z) : 0;
      light.intensity = strength;
      if (strength === 0) return;
      const place = light_places.value[n]!;
      light.position.set(place.x, place.y, place.z);
      light.distance = place.w;
      light.color.setRGB(colour.x / strength, colour.y / strength, colour.z / strength);
    });
  }

  dispose(): void {
    this.object.removeFromParent();
    this.#drawings.dispose();
    this.#depths.dispose();
  }
}
