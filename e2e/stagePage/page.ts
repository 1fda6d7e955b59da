import { parseEffect } from '@jinx/core/document';
import { readCanonicalPicture, readRig, rigsOf } from '@jinx/core/formats';
import type { KernelBytes } from '@jinx/core/kernels';
import { FrameWriter, tripleBuffer, tripleBufferBytes, World, type Inputs } from '@jinx/core/simulation';
import type { StageView } from '../../stage/protocol.ts';
import { Stage } from '../../stage/stage.ts';
import { AS_IT_IS, drawnFog, drawnLayers, drawnLens, type Seen } from '../../web/src/engine/drawn.ts';
import { InstantRun } from '../../web/src/engine/instantRun.ts';
import { FIRST_VIEW, type View } from '../../web/src/engine/view.ts';

// The page that draws effects for tests: the same world, the same stage, no bench around them.

export interface PictureOrder {
  readonly effect: unknown;
  readonly step: number;
  readonly width: number;
  readonly height: number;
  /** Canonical bytes of what the effect uses, by hash, in base64. */
  readonly assets?: Readonly<Record<string, string>>;
  readonly view?: Partial<View>;
  readonly seen?: Partial<Seen>;
  readonly inputs?: Inputs;
  /** What is shown in place of the picture, and instants laid over it as silhouettes, in seconds. */
  readonly shown?: StageView;
  readonly instants?: readonly number[];
  /** Layers that are not drawn, by id. */
  readonly without?: readonly string[];
}
export interface StagePage {
  picture(order: PictureOrder): Promise<string>;
  /** Takes the graphics away and gives them back; how often the stage heard of each. */
  loseContext(): Promise<{ lost: number; restored: number }>;
  /** Draw calls and triangles of the last picture. */
  calls(): { calls: number; triangles: number };
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
const wasm = async (name: string) => new Uint8Array(await (await fetch(`/${name}.wasm`)).arrayBuffer());
const kernels = Promise.all([wasm('shared'), wasm('plain')]).then(([shared, plain]): KernelBytes => ({
  shared,
  plain,
}));
const canvas = new OffscreenCanvas(64, 64);
const heard = { lost: 0, restored: 0 };
const stage = new Stage(canvas, (isLost) => heard[isLost ? 'lost' : 'restored']++);
let text = '';

window.stagePage = {
  async picture(order) {
    const effect = parseEffect(order.effect);
    const assets = Object.fromEntries(
      Object.entries(order.assets ?? {}).map(([hash, coded]) => [hash, bytesOf(coded)]),
    );
    const rigs = new Map(rigsOf(effect).flatMap((hash) => (assets[hash] ? [[hash, readRig(assets[hash])]] : [])));
    const world = new World(effect, rigs, order.inputs ?? {}, { kernels: await kernels });
    world.advance(order.step);
    const room = { mostRecords: world.mostRecords, mostJoints: world.mostJoints };
    const buffer = new SharedArrayBuffer(tripleBufferBytes(room));
    const writer = new FrameWriter(tripleBuffer(buffer, room));
    world.writeFrame(writer.frame);
    writer.publish();
    const seen: Seen = { ...AS_IT_IS, ...order.seen };
    const things = effect.stage.things.order.slice().sort();
    const known = Object.keys(assets).sort().join();
    if (known !== text) {
      text = known;
      const pictures = Object.entries(assets).flatMap(([hash, bytes]) => {
        try {
          return [{ hash, texture: readCanonicalPicture(bytes) }];
        } catch {
          return [];
        }
      });
      stage.take({ kind: 'pictures', pictures });
    }
    const meshes = [...rigs].map(([hash, { mesh, texture }]) => ({ hash, mesh, texture }));
    stage.take({ kind: 'meshes', meshes });
    let boneStart = 0;
    const figures = things.map((id) => {
      const { mesh, texture, inverseBind, bones } = rigs.get(effect.stage.things.byId[id]!.asset)!;
      const figure = { mesh, texture, inverseBind, boneStart };
      boneStart += bones.length + 1;
      return figure;
    });
    stage.take({ kind: 'figures', figures, followed: 0 });
    stage.take({ kind: 'surround', surround: effect.stage.surround });
    stage.take({ kind: 'guides', guides: [], isShown: false });
    stage.take({ kind: 'lens', lens: drawnLens(effect, seen) });
    stage.take({ kind: 'air', fog: drawnFog(effect, seen) });
    stage.take({ kind: 'camera', ...FIRST_VIEW, ...order.view });
    const hidden = new Set((order.without ?? []).map((id) => effect.layers.byId[id]!.salt));
    const layers = drawnLayers(effect, seen).map((layer) =>
      hidden.has(layer.salt) ? { ...layer, isVisible: false } : layer,
    );
    stage.take({ kind: 'layers', layers });
    stage.take({ kind: 'view', view: order.shown ?? 'picture' });
    stage.take({ kind: 'forgetInstants' });
    const run = new InstantRun(effect, rigs, [], order.instants ?? [], { kernels: await kernels });
    while (!run.isDone) {
      const { frame, share } = run.advance(() => false)!;
      const { mostJoints } = frame;
      stage.take({ kind: 'instant', buffer: frame.f32.buffer as ArrayBuffer, mostJoints, share });
    }
    stage.take({ kind: 'frames', buffer, address: 0, ...room });
    return textOf(stage.pixels(order.width, order.height, 0));
  },
  async loseContext() {
    const context = canvas.getContext('webgl2')!.getExtension('WEBGL_lose_context')!;
    context.loseContext();
    await new Promise((resolve) => setTimeout(resolve, 100));
    context.restoreContext();
    await new Promise((resolve) => setTimeout(resolve, 300));
    return heard;
  },
  calls: () => stage.calls,
};
