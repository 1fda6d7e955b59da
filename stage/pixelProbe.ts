import * as THREE from 'three';
import { Frame, RECORD_SIZE, RECORD_TO, type FrameLayer } from '@jinx/core/simulation';
import type { Drawings } from './drawings.ts';
import type { LayerDrawing } from './layers/layerDrawing.ts';
import type { Passes } from './passes/passes.ts';
import type { PixelColour, PixelLayer, ProbedPixel, PixelStep } from './protocol.ts';

/** Particles that are looked for in one layer at most, and pictures that are drawn in search of them. */
const MOST_FOUND = 24;
const MOST_TRIES = 240;
/** What counts as seen: two thousandths of the screen's white. */
const SEEN = 0.002;

const CLEAR = [0, 0, 0, 0] as const;
const WHITE = [1, 1, 1, 1] as const;

/** What is probed: a frame, and where in it; rows count from the top. */
export interface Probed {
  readonly frame: Frame;
  readonly rate: number;
  readonly x: number;
  readonly y: number;
  /** Moves everything to the frame, as it is for a picture. */
  readonly prepare: () => void;
}

/**
 * Takes the picture apart at one pixel: it is drawn with ever more of its layers, from back to front, and each layer with
 * ever fewer of its particles, until those are left that are seen there.
 */
export class PixelProbe {
  readonly #passes: Passes;
  readonly #drawings: Drawings;
  readonly #camera: THREE.PerspectiveCamera;

  constructor(passes: Passes, drawings: Drawings, camera: THREE.PerspectiveCamera) {
    this.#passes = passes;
    this.#drawings = drawings;
    this.#camera = camera;
  }

  /** What each layer does to a pixel, from back to front. */
  take(probed: Probed): ProbedPixel {
    const { frame, rate, x, y } = probed;
    const shown = new Set<number>();
    const shot = (): PixelColour => {
      this.#drawings.showOnly(shown, frame, rate);
      probed.prepare();
      return this.#draw(x, y);
    };
    let before = shot();
    const base = before;
    const layers: PixelLayer[] = [];
    for (const { salt, drawing } of this.#drawings.backToFront) {
      const found = frame.layer(salt);
      if (!found || found.count === 0) continue;
      shown.add(salt);
      const after = shot();
      if (differs(before, after)) {
        const parts = drawing && isApart(drawing) ? this.#particles(drawing, found, probed) : NOT_APART;
        layers.push({ salt, before, after, ...parts });
        if (parts !== NOT_APART) drawing!.load(frame, found);
      }
      before = after;
    }
    this.#drawings.showOnly(null, frame, rate);
    return { base, layers };
  }

  /** What a layer alone gives to a pixel after each step of its look; null while it is not drawn. */
  async steps(salt: number, now: () => Probed | null): Promise<PixelStep[] | null> {
    const drawing = this.#drawings.drawingOf(salt);
    const cuts = drawing && (await drawing.cuts());
    const probed = now();
    if (!drawing || !cuts || !probed) return null;
    const { x, y } = probed;
    probed.prepare();
    this.#draw(x, y);
    const steps = cuts.map(({ step, take }) => {
      const putBack = take();
      const colour = this.#alone(drawing, x, y);
      putBack();
      return { step, colour };
    });
    drawing.forgetCuts();
    return steps;
  }

  /** Draws all that is shown, at one pixel if nothing looks at its neighbours, and reads that pixel. */
  #draw(x: number, y: number): PixelColour {
    const { needs } = this.#drawings;
    return this.#passes.atPixel(needs.hazes.length === 0, x, y, () => {
      this.#passes.drawScene(this.#camera, needs);
    });
  }

  /** Draws one layer over nothing, where what is solid lets it be seen. */
  #alone(drawing: LayerDrawing, x: number, y: number): PixelColour {
    return this.#passes.atPixel(true, x, y, () =>
      this.#passes.drawAlone(drawing.group, this.#camera, clearOf(drawing)),
    );
  }

  /** Which of a layer's particles are seen at the pixel, in the order they are drawn: by halves, and halves of those. */
  #particles(
    drawing: LayerDrawing,
    found: FrameLayer,
    { frame, x, y }: Probed,
  ): Pick<PixelLayer, 'particles' | 'isAll'> {
    // Those that are left out have no size.
    const some = new Frame(frame.f32.slice().buffer);
    const sizeAt = (n: number) => frame.recordAt(found.start + n) + RECORD_SIZE;
    const nothing = clearOf(drawing);
    let tries = 0;
    const isSeen = (from: number, to: number): boolean => {
      tries++;
      for (let n = 0; n < found.count; n++) some.f32[sizeAt(n)] = n >= from && n < to ? frame.f32[sizeAt(n)]! : 0;
      drawing.load(some, found);
      this.#sort(drawing);
      return differs(this.#alone(drawing, x, y), nothing);
    };
    const particles: number[] = [];
    const search = (from: number, to: number): void => {
      if (from >= to || particles.length >= MOST_FOUND || tries >= MOST_TRIES || !isSeen(from, to)) return;
      if (to - from === 1) return void particles.push(from);
      const middle = (from + to) >> 1;
      search(from, middle);
      search(middle, to);
    };
    search(0, found.count);
    const isAll = particles.length < MOST_FOUND && tries < MOST_TRIES;
    return { particles: this.#asDrawn(drawing, found, frame, particles), isAll };
  }

  readonly #way = new THREE.Vector3();
  #sort(drawing: LayerDrawing): void {
    this.#camera.getWorldDirection(this.#way);
    drawing.follow(1);
    drawing.sort(this.#camera.position, this.#way);
  }

  #asDrawn(drawing: LayerDrawing, { start }: FrameLayer, frame: Frame, particles: number[]): number[] {
    const { order } = drawing.layer!;
    if (order === 'newest') return particles;
    if (order === 'oldest') return particles.reverse();
    const way = this.#camera.getWorldDirection(this.#way);
    const depth = (n: number) => {
      const at = frame.recordAt(start + n) + RECORD_TO;
      const { f32 } = frame;
      return f32[at]! * way.x + f32[at + 1]! * way.y + f32[at + 2]! * way.z;
    };
    return particles.sort((a, b) => depth(b) - depth(a));
  }
}

const NOT_APART: Pick<PixelLayer, 'particles' | 'isAll'> = { particles: null, isAll: true };

/** Whether a layer's particles are drawn each by itself, and can be seen without what is around them. */
const isApart = ({ layer }: LayerDrawing): boolean => layer?.drawn.kind === 'sprite' || layer?.drawn.kind === 'mesh';

const clearOf = ({ layer }: LayerDrawing): PixelColour => (layer?.blend === 'multiply' ? WHITE : CLEAR);

const differs = (a: PixelColour, b: PixelColour): boolean => a.some((value, n) => Math.abs(value - b[n]!) > SEEN);
