import { parseEffect, type Effect } from '@jinx/core/document';
import { readCanonicalPicture, readRig, rigsOf } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import type { KernelBytes } from '@jinx/core/kernels';
import {
  FrameWriter,
  tripleBuffer,
  tripleBufferBytes,
  playAlone,
  type Instance,
  type Inputs,
  frameBytes,
  needsFor,
  World,
  worldFor,
} from '@jinx/core/simulation';
import type { StageFigure, StagePicture, StageView } from '../../stage/protocol.ts';
import { StageContext } from '../../stage/context.ts';
import { Stage } from '../../stage/stage.ts';
import {
  AS_IT_IS,
  drawnFog,
  drawnSurroundings,
  drawnLayers,
  drawnLens,
  figuresOf,
  FIRST_VIEW,
  type Seen,
  type View,
} from '@jinx/player/scene';
import { InstantRun } from '@jinx/player/simulation';

// The page that draws effects for tests: the same world, the same stage, no bench around them.

export interface PictureOrder {
  readonly effect: unknown;
  readonly step: number;
  readonly width: number;
  readonly height: number;
  readonly view?: Partial<View>;
  readonly seen?: Partial<Seen>;
  readonly inputs?: Inputs;
  /** What is shown in place of the picture, and instants laid over it as silhouettes, in seconds. */
  readonly shown?: StageView;
  readonly instants?: readonly number[];
  /** Layers that are not drawn, by id. */
  readonly without?: readonly string[];
  /** Where instances of it stand, in one world, rather than one in the middle. */
  readonly places?: readonly [number, number, number][];
}
export interface StagePage {
  /** Takes canonical bytes of all that effects use, by hash, in base64. */
  keep(assets: Readonly<Record<string, string>>): void;
  /** Draws what a `PictureOrder` says, given as JSON. Returns four bytes a pixel, rows from the top: deflated, in base64. */
  picture(order: string): Promise<string>;
  /** Takes the graphics away and gives them back; how often the stage heard of each. */
  loseContext(): Promise<{ lost: number; restored: number }>;
  /** Draw calls and triangles of the last picture. */
  calls(): { calls: number; triangles: number; compiled: number };
}
declare global {
  interface Window {
    stagePage: StagePage;
  }
}

const bytesOf = (text: string) => Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
function textOf(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text);
}
/** Bytes as text to hand over, deflated: a picture is mostly alike, and a long text takes longer to hand over than to deflate. */
async function handedOver(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const deflated = new Blob([bytes]).stream().pipeThrough(new CompressionStream('deflate-raw'));
  return textOf(new Uint8Array(await new Response(deflated).arrayBuffer()));
}
const wasm = async (name: string) => new Uint8Array(await (await fetch(`/${name}.wasm`)).arrayBuffer());
const kernels = Promise.all([wasm('shared'), wasm('plain')]).then(([shared, plain]): KernelBytes => ({
  shared,
  plain,
}));
/** Shaders compiled since the page began. */
let compiled = 0;
const compileShader = WebGL2RenderingContext.prototype.compileShader;
WebGL2RenderingContext.prototype.compileShader = function (shader) {
  compiled++;
  compileShader.call(this, shader);
};
const canvas = new OffscreenCanvas(64, 64);
const heard = { lost: 0, restored: 0 };
const context = new StageContext(canvas);
context.listen((isLost) => heard[isLost ? 'lost' : 'restored']++);
const stage = new Stage(context);
/** What effects use, read once. */
const rigsKept = new Map<string, Rig>();
/** What stands on the stage, as text. */
let standing = '';

/** The world of the effect drawn last: another picture of it, in another light or later, needs no new one. */
let known: { key: string; world: Instance } | null = null;
async function worldOf(effect: Effect, inputs: Inputs): Promise<Instance> {
  const { things, carrier } = effect.stage;
  const key = JSON.stringify([{ ...effect, stage: { things, carrier } }, inputs]);
  if (known?.key !== key) known = { key, world: playAlone(effect, rigsKept, inputs, { kernels: await kernels }) };
  return known.world;
}

/** A world of as many instances as there are places. */
async function manyOf(effect: Effect, places: readonly [number, number, number][]): Promise<World> {
  const needs = places.map(() => needsFor(effect, rigsKept));
  const world = worldFor(needs, { kernels: await kernels });
  for (const at of places) world.add(effect, rigsKept, {}, { at });
  return world;
}

/** Puts the things of so many instances of an effect on the stage, and the meshes it uses beside it, unless they are there. */
function setThings(effect: Effect, instances: number): void {
  const { byId, order } = effect.stage.things;
  const text = JSON.stringify([order.map((id) => [id, byId[id]!.asset]).sort(), rigsOf(effect), instances]);
  if (text === standing) return;
  standing = text;
  const meshes = rigsOf(effect).flatMap((hash) => {
    const rig = rigsKept.get(hash);
    return rig ? [{ hash, mesh: rig.mesh, texture: rig.texture }] : [];
  });
  stage.take({ kind: 'meshes', meshes });
  let boneStart = 0;
  const figures: StageFigure[] = [];
  for (let n = 0; n < instances; n++) {
    const own = figuresOf(effect, rigsKept, boneStart);
    figures.push(...own.figures);
    boneStart = own.next;
  }
  stage.take({ kind: 'figures', figures, followed: 0 });
}

window.stagePage = {
  keep(assets) {
    const pictures: StagePicture[] = [];
    for (const [hash, coded] of Object.entries(assets)) {
      const bytes = bytesOf(coded);
      try {
        rigsKept.set(hash, readRig(bytes));
      } catch {
        pictures.push({ hash, texture: readCanonicalPicture(bytes) });
      }
    }
    stage.take({ kind: 'pictures', pictures });
  },
  async picture(text) {
    const order = JSON.parse(text) as PictureOrder;
    const effect = parseEffect(order.effect);
    const world = order.places ? await manyOf(effect, order.places) : await worldOf(effect, order.inputs ?? {});
    world.advance(order.step);
    const bytes = frameBytes(world instanceof World ? world.room.frame : world.frameSizes);
    const buffer = new SharedArrayBuffer(tripleBufferBytes(bytes));
    const writer = new FrameWriter(tripleBuffer(buffer, bytes));
    world.writeFrame(writer.frame);
    writer.publish();
    const seen: Seen = { ...AS_IT_IS, ...order.seen };
    setThings(effect, order.places?.length ?? 1);
    stage.take({ kind: 'surround', surround: effect.stage.surround });
    stage.take({ kind: 'guides', guides: [], isShown: false });
    stage.take({ kind: 'lens', lens: drawnLens(effect, seen) });
    stage.take({ kind: 'air', fog: drawnFog(effect, seen), mirrored: drawnSurroundings(effect, seen) });
    stage.take({ kind: 'camera', ...FIRST_VIEW, ...order.view });
    const hidden = new Set((order.without ?? []).map((id) => effect.layers.byId[id]!.salt));
    const layers = drawnLayers(effect, seen).map((layer) =>
      hidden.has(layer.salt) ? { ...layer, isVisible: false } : layer,
    );
    stage.take({ kind: 'layers', layers });
    stage.take({ kind: 'view', view: order.shown ?? 'picture' });
    stage.take({ kind: 'forgetInstants' });
    const { instants = [] } = order;
    const run = instants.length > 0 && new InstantRun(effect, rigsKept, {}, instants, { kernels: await kernels });
    while (run && !run.isDone) {
      const { frame, share } = run.advance(() => false)!;
      stage.take({ kind: 'instant', buffer: frame.f32.buffer as ArrayBuffer, share });
    }
    stage.take({ kind: 'frames', buffer, address: 0, bytes });
    return handedOver(new Uint8Array(stage.pixels(order.width, order.height, 0).data.buffer));
  },
  async loseContext() {
    const loser = canvas.getContext('webgl2')!.getExtension('WEBGL_lose_context')!;
    loser.loseContext();
    await new Promise((resolve) => setTimeout(resolve, 100));
    loser.restoreContext();
    await new Promise((resolve) => setTimeout(resolve, 300));
    return heard;
  },
  calls: () => ({ ...stage.calls, compiled }),
};
