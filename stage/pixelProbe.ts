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

/** How far around a pixel layers are looked for, and in which ways: itself first. */
const NEAR_PIXELS = 4;
const AROUND: readonly (readonly [number, number])[] = [
  [0, 0],
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
];

const CLEAR = [0, 0, 0, 0] as const;
const WHITE = [1, 1, 1, 1] as const;

/** What is probed: a frame, and a picture of it of so many pixels. */
export interface Probed {
  readonly frame: Frame;
  readonly rate: number;
  readonly width: number;
  readonly height: number;
  /** Moves everything to the frame, as it is for a picture. */
  readonly prepare: () => void;
  /** The picture is as it was from now on. */
  readonly end: () => void;
}

/** A pixel of it; rows count from the top. */
type Place = Probed & { readonly x: number; readonly y: number };

const placed = (probed: Probed, across: number, down: number): Place => ({
  ...probed,
  x: clamp(Math.floor(across * probed.width), 0, probed.width - 1),
  y: clamp(Math.floor(down * probed.height), 0, probed.height - 1),
});

/**
 * Takes the picture apart at one pixel: it is drawn with ever more of its layers, from back to front, and each layer with
 * ever fewer of its particles, until those are left that are seen there.
 */
export class PixelProbe {
  readonly #passes: Passes;
  readonly #drawings: Drawings;
  readonly #camera: THREE.PerspectiveCamera;

  readonly #present: () => Probed | null;

  /** `present` is the picture of now. */
  constructor(passes: Passes, drawings: Drawings, camera: THREE.PerspectiveCamera, present: () => Probed | null) {
    this.#present = present;
    this.#passes = passes;
    this.#drawings = drawings;
    this.#camera = camera;
  }

  /** What made a pixel, 0 to 1 from the left and the top: the surround, then each layer; null while nothing is drawn. */
  take(across: number, down: number): ProbedPixel | null {
    const probed = this.#present();
    const found = probed && this.#take(placed(probed, across, down));
    probed?.end();
    return found;
  }

  /** What each layer does to a pixel, from back to front. */
  #take(probed: Place): ProbedPixel {
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

  /**
   * The salts of the layers that are seen at a pixel, or where none is, at one of those around it: first what the pixel
   * would miss most, then what something else hides, from front to back.
   */
  layersAt(across: number, down: number): number[] {
    const probed = this.#present();
    if (!probed) return [];
    const { width, height } = probed;
    const near = AROUND.map(([right, below]) =>
      placed(probed, across + (right * NEAR_PIXELS) / width, down + (below * NEAR_PIXELS) / height),
    );
    let salts: number[] = [];
    for (const place of near) if (salts.length === 0) salts = this.#seenAt(place);
    probed.end();
    return salts;
  }

  #seenAt({ frame, rate, x, y, prepare }: Place): number[] {
    const drawn = this.#drawings.backToFront.filter(({ salt }) => (frame.layer(salt)?.count ?? 0) > 0);
    const isHaze = ({ drawing }: { drawing: LayerDrawing | null }) => drawing?.layer?.drawn.kind === 'haze';
    const all = new Set(drawn.map(({ salt }) => salt));
    const clear = new Set(drawn.filter((one) => !isHaze(one)).map(({ salt }) => salt));
    const shot = (salts: ReadonlySet<number>, isOnly: boolean): PixelColour => {
      this.#drawings.showOnly(salts, frame, rate);
      prepare();
      return this.#passes.atPixel(isOnly, x, y, () => this.#passes.drawScene(this.#camera, this.#drawings.needs));
    };
    // Haze looks at its neighbours, so that the whole picture is drawn for it; all else is drawn at one pixel without it.
    const [withHaze, withoutHaze] = [
      clear.size < all.size ? shot(all, false) : CLEAR,
      clear.size > 0 ? shot(clear, true) : CLEAR,
    ];
    const seen = drawn.map((one) => {
      const [whole, of] = isHaze(one) ? [withHaze, all] : [withoutHaze, clear];
      const less = shot(new Set([...of].filter((salt) => salt !== one.salt)), !isHaze(one));
      return { salt: one.salt, missed: distance(whole, less) };
    });
    const shown = new Set<number>();
    let before = shot(shown, true);
    const covered: number[] = [];
    for (const { salt } of drawn.filter((one) => !isHaze(one))) {
      const after = shot(shown.add(salt), true);
      if (differs(before, after)) covered.unshift(salt);
      before = after;
    }
    this.#drawings.showOnly(null, frame, rate);
    const first = seen.filter(({ missed }) => missed > SEEN).sort((a, b) => b.missed - a.missed);
    return [...new Set([...first.map(({ salt }) => salt), ...covered])];
  }

  /** What a layer alone gives to a pixel after each step of its look; null while it is not drawn. */
  async steps(across: number, down: number, salt: number): Promise<PixelStep[] | null> {
    const drawing = this.#drawings.drawingOf(salt);
    const cuts = drawing && (await drawing.cuts());
    const probed = this.#present();
    if (!drawing || !cuts || !probed) return null;
    const { x, y } = placed(probed, across, down);
    probed.prepare();
    this.#draw(x, y);
    const steps = cuts.map(({ step, take }) => {
      const putBack = take();
      const colour = this.#alone(drawing, x, y);
      putBack();
      return { step, colour };
    });
    drawing.forgetCuts();
    probed.end();
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
    { frame, x, y }: Place,
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
    if (order === 'newest' || order === 'none') return particles;
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

const distance = (a: PixelColour, b: PixelColour): number =>
  Math.max(...a.map((value, n) => Math.abs(value - b[n]!)));
const clamp = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
