import * as THREE from 'three';
import {
  FrameWriter,
  HEADER_RATE,
  HEADER_STEP,
  LAYER_COUNT,
  LAYER_OWN,
  LAYER_PLAN,
  frameBytes,
  LAYER_OWN_START,
  LAYER_SALT,
  LAYER_SHARED,
  LAYER_SHARED_COUNT,
  NO_SIZES,
  type FrameSizes,
  LAYER_START,
  RECORD_WORDS,
  tripleBuffer,
  tripleBufferBytes,
  type Frame,
} from '@jinx/core/simulation';
import { lookPlan, newReading } from '@jinx/core/simulation';
import {
  collectionOf,
  newDrawn,
  newEffect,
  newLayer,
  newStep,
  setStep,
  type Effect,
  type Layer,
  type Step,
} from '@jinx/core/document';
import { StageContext } from '../../stage/context.ts';
import { Stage } from '../../stage/stage.ts';
import { drawnLayers } from '@jinx/player/scene';

// The page of the benchmark "draw": the stage, and beside it three.js as bare as it can be, on the same particles.

const [WIDTH, HEIGHT] = [1280, 800];
const DISTANCE = 5;
const FIELD = 34;

declare global {
  interface Window {
    drawing: {
      time(order: TimeOrder): number[];
      /** Makes ready what `run` draws. */
      prepare(order: TimeOrder): void;
      run(frames: number): void;
      /** Milliseconds of frames before a layer with a look of its own is added, and of those until it is seen. */
      adding(order: TimeOrder, before: number): Promise<{ before: number[]; after: number[] }>;
      calls(): { calls: number; triangles: number };
    };
  }
}
export interface TimeOrder {
  readonly who: 'stage' | 'bare';
  readonly count: number;
  readonly layers: number;
  readonly pixels: number;
  readonly frames: number;
  readonly beside?: 'bloom' | 'haze' | 'lights' | 'added';
}

/** Metres that are so many pixels wide in the middle of the picture. */
const metres = (pixels: number) => (pixels * 2 * DISTANCE * Math.tan((FIELD * Math.PI) / 360)) / HEIGHT;

function mulberry(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Records of dots all over the picture. */
function recordsOf(count: number, pixels: number): Float32Array {
  const random = mulberry(7);
  const words = new Float32Array(count * RECORD_WORDS);
  for (let n = 0; n < count; n++) {
    const place = [(random() - 0.5) * 4.4, 1 + (random() - 0.5) * 2.6, (random() - 0.5) * 0.5];
    words.set([...place, 0, ...place, 0, 0.9, 0.7, 0.3, 0.05, metres(pixels), 0.5, n, 0], n * RECORD_WORDS);
  }
  return words;
}

const ADDED = 900;
/** A layer with a look that no other has. */
function layerOfItsOwn(): Layer {
  const layer = newLayer('Added', ADDED);
  const cells = newStep('drawn');
  setStep(cells, 'shape', 'cells');
  layer.look = {
    kind: 'own',
    steps: collectionOf<Step>([
      ['warp', newStep('warp')],
      ['drawn', newStep('drawn')],
      ['cells', cells],
      ['dissolve', newStep('dissolve')],
    ]),
  };
  return layer;
}

/** So many layers of soft dots, each with its share of the particles; beside them what is to be measured too. */
function effectOf({ count, layers, beside }: TimeOrder): { effect: Effect; shares: number[] } {
  const effect = newEffect('Draw', 1);
  effect.stage.lens.bloom.isOn = beside === 'bloom';
  const names = Array.from({ length: layers }, (_, n) => `layer${n}`);
  effect.layers = { order: [], byId: {} };
  const put = (id: string, layer: ReturnType<typeof newLayer>) => {
    effect.layers.order.push(id);
    effect.layers.byId[id] = layer;
  };
  if (beside === 'haze') put('haze', { ...newLayer('Haze', 500), drawn: newDrawn('haze') });
  if (beside === 'lights') put('lights', { ...newLayer('Lights', 501), drawn: newDrawn('light') });
  if (beside === 'added') put('added', layerOfItsOwn());
  names.forEach((id, n) => put(id, newLayer(id, n + 1)));
  const shares = effect.layers.order.map((id) =>
    id === 'haze' ? 1 : id === 'lights' || id === 'added' ? 16 : Math.floor(count / layers),
  );
  return { effect, shares };
}

/** What a frame of the effect holds. */
function sizesOf(effect: Effect, shares: readonly number[]): FrameSizes {
  const plans = effect.layers.order.map((id) => lookPlan(effect, effect.layers.byId[id]!));
  return {
    ...NO_SIZES,
    layers: plans.length,
    shared: plans.reduce((sum, { sharedWords }) => sum + sharedWords, 0),
    records: shares.reduce((sum, count) => sum + count, 0),
  };
}

function fill(frame: Frame, effect: Effect, shares: readonly number[], pixels: number): void {
  const { f32, u32 } = frame;
  frame.layOut(sizesOf(effect, shares));
  let start = 0;
  let shared = frame.shared;
  effect.layers.order.forEach((id, index) => {
    const layer = effect.layers.byId[id]!;
    const plan = lookPlan(effect, layer);
    const at = frame.layerAt(index);
    u32[at + LAYER_SALT] = layer.salt;
    u32[at + LAYER_START] = start;
    u32[at + LAYER_COUNT] = shares[index]!;
    u32[at + LAYER_PLAN] = plan.id;
    u32[at + LAYER_OWN] = plan.ownWords;
    u32[at + LAYER_OWN_START] = frame.own;
    u32[at + LAYER_SHARED] = shared;
    u32[at + LAYER_SHARED_COUNT] = plan.sharedWords;
    for (const { at: place, reader } of plan.numbers) f32[shared + place] = reader.middle(newReading());
    shared += plan.sharedWords;
    f32.set(recordsOf(shares[index]!, layer.drawn.kind === 'sprite' ? pixels : 300), frame.recordAt(start));
    start += shares[index]!;
  });
  u32[HEADER_RATE] = 60;
}

const stageCanvas = new OffscreenCanvas(WIDTH, HEIGHT);
const context = new StageContext(stageCanvas);
context.listen((isLost) => {
  if (isLost) throw new Error('the graphics were taken away: nothing was measured');
});
const stage = new Stage(context);
stage.take({ kind: 'size', width: WIDTH, height: HEIGHT });
stage.take({ kind: 'guides', guides: [], isShown: false });
stage.take({ kind: 'camera', position: [0, 1, DISTANCE], target: [0, 1, 0], fieldOfView: FIELD, follows: false });

/** A function that draws one frame of the stage to its end, as while playing: every frame is a new one. */
function stageFrames(order: TimeOrder, hasAdded = true): () => void {
  const { effect, shares } = effectOf(order);
  const bytes = frameBytes(sizesOf(effect, shares));
  const buffer = new SharedArrayBuffer(tripleBufferBytes(bytes));
  const triple = tripleBuffer(buffer, bytes);
  for (const frame of triple.frames) fill(frame, effect, shares, order.pixels);
  const writer = new FrameWriter(triple);
  stage.take({
    kind: 'lens',
    lens: { bloom: order.beside === 'bloom' ? { strength: 35, spread: 9 } : null, exposure: 0, dim: 0 },
  });
  stage.take({ kind: 'layers', layers: drawnLayers(effect).filter(({ salt }) => hasAdded || salt !== ADDED) });
  stage.take({ kind: 'frames', buffer, address: 0, bytes });
  let step = 1;
  const next = () => {
    writer.frame.u32[HEADER_STEP] = step++;
    writer.publish();
  };
  next();
  stage.pixels(64, 40, 0);
  return () => {
    next();
    stage.draw(performance.now(), true);
    stage.finish();
  };
}

let bare: THREE.WebGLRenderer | null = null;
/** One for all: a browser takes the graphics away from the first of too many. */
function bareRenderer(): THREE.WebGLRenderer {
  if (bare) return bare;
  bare = new THREE.WebGLRenderer({ canvas: new OffscreenCanvas(WIDTH, HEIGHT), antialias: false });
  bare.setSize(WIDTH, HEIGHT, false);
  return bare;
}

/** three.js with nothing around: one instanced draw a layer, 64 bytes a particle, the same blending, into half float and out. */
function bareFrames({ count, layers, pixels }: TimeOrder): () => void {
  const renderer = bareRenderer();
  const camera = new THREE.PerspectiveCamera(FIELD, WIDTH / HEIGHT, 0.02, 200);
  camera.position.set(0, 1, DISTANCE);
  camera.lookAt(0, 1, 0);
  camera.updateMatrixWorld();
  const scene = new THREE.Scene();
  const material = new THREE.ShaderMaterial({
    vertexShader: `
      attribute vec4 start, finish, tint, rest;
      varying vec2 at; varying vec4 colour;
      void main() {
        at = position.xy; colour = tint;
        gl_Position = projectionMatrix * (viewMatrix * vec4(finish.xyz, 1.0) + vec4(position.xy * rest.x * 0.5, 0.0, 0.0));
      }`,
    fragmentShader: `
      varying vec2 at; varying vec4 colour;
      void main() {
        float s = max(0.0, 1.0 - dot(at, at));
        float amount = s * s * colour.a;
        gl_FragColor = vec4(colour.rgb * amount, 0.0);
      }`,
    transparent: true,
    depthWrite: false,
    side: THREE.DoubleSide,
    blending: THREE.CustomBlending,
    blendSrc: THREE.OneFactor,
    blendDst: THREE.OneMinusSrcAlphaFactor,
  });
  const quad = new THREE.PlaneGeometry(2, 2);
  const each = Math.floor(count / layers);
  const words = recordsOf(each, pixels);
  const buffers = Array.from({ length: layers }, () => {
    const geometry = new THREE.InstancedBufferGeometry();
    geometry.setAttribute('position', quad.getAttribute('position'));
    geometry.setIndex(quad.getIndex());
    const buffer = new THREE.InstancedInterleavedBuffer(new Float32Array(Math.max(1, words.length)), RECORD_WORDS);
    buffer.setUsage(THREE.DynamicDrawUsage);
    ['start', 'finish', 'tint', 'rest'].forEach((name, n) =>
      geometry.setAttribute(name, new THREE.InterleavedBufferAttribute(buffer, 4, n * 4)),
    );
    geometry.instanceCount = each;
    const mesh = new THREE.Mesh(geometry, material);
    mesh.frustumCulled = false;
    scene.add(mesh);
    return buffer;
  });
  const target = new THREE.WebGLRenderTarget(WIDTH, HEIGHT, { type: THREE.HalfFloatType });
  const copy = new THREE.Scene();
  copy.add(new THREE.Mesh(quad, new THREE.MeshBasicMaterial({ map: target.texture, depthTest: false })));
  const flat = new THREE.OrthographicCamera(-1, 1, 1, -1, -1, 1);
  const gl = renderer.getContext();
  const pixel = new Uint8Array(4);
  return () => {
    for (const buffer of buffers) {
      buffer.array.set(words);
      buffer.needsUpdate = true;
    }
    renderer.setRenderTarget(target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(null);
    renderer.render(copy, flat);
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
  };
}

const framesOf = (order: TimeOrder) => (order.who === 'stage' ? stageFrames(order) : bareFrames(order));
let prepared: () => void = () => undefined;
window.drawing = {
  time(order) {
    const frame = framesOf(order);
    for (let n = 0; n < 4; n++) frame();
    return Array.from({ length: order.frames }, () => {
      const start = performance.now();
      frame();
      return performance.now() - start;
    });
  },
  prepare(order) {
    prepared = framesOf(order);
    for (let n = 0; n < 20; n++) prepared();
  },
  run(frames) {
    for (let n = 0; n < frames; n++) prepared();
  },
  async adding(order, before) {
    const withAdded = { ...order, beside: 'added' } as const;
    const frame = stageFrames(withAdded, false);
    const timedFrames = async (isDone: (n: number) => boolean) => {
      const times: number[] = [];
      for (let n = 0; !isDone(n); n++) {
        const start = performance.now();
        frame();
        times.push(performance.now() - start);
        // As while playing: between frames the browser hands over what has been compiled.
        await new Promise((resolve) => setTimeout(resolve, 4));
      }
      return times;
    };
    await timedFrames((n) => n === 10);
    const first = await timedFrames((n) => n === before);
    const calls = stage.calls.calls;
    const start = performance.now();
    stage.take({ kind: 'layers', layers: drawnLayers(effectOf(withAdded).effect) });
    const taken = performance.now() - start;
    const after = await timedFrames((n) => n >= 200 || stage.calls.calls > calls);
    after[0]! += taken;
    return { before: first, after };
  },
  calls: () => stage.calls,
};
