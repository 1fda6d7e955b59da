import * as THREE from 'three';
import { Frame, FrameReader, HEADER_EDIT, tripleBuffer } from '@jinx/core/simulation';
import type { StageContext } from './context.ts';
import { Drawings } from './drawings.ts';
import { Figures } from './figures.ts';
import { fromTheTop } from './fromTheTop.ts';
import { Guides } from './guides.ts';
import { Instants } from './instants.ts';
import { newCommonUniforms } from './looks/light.ts';
import { drawnMatrixInto } from './matrices.ts';
import { Passes } from './passes/passes.ts';
import { PixelProbe, type Probed } from './pixelProbe.ts';
import { VIEW_KINDS } from './looks/viewTones.ts';
import type { ParticlePicturesAsked, StageFigure, StageFog, StageView, StageOrder, Tracked } from './protocol.ts';
import { Shots, type MarkShot, type Shot, type ShotMarks, type ShotPixels } from './shots.ts';
import { Surroundings } from './surroundings.ts';
import { Tracker } from './tracker.ts';
import { isColoured, isNumbered, placeCamera } from './views.ts';

/** Where a scene is drawn: on the canvas of the graphics, or into a picture of its own that can be read back. */
export type StageOutput = 'canvas' | 'picture';

/** One scene: draws frames. Knows layers by their salt, and nothing of documents, pages or servers. */
export class Stage {
  readonly #renderer: THREE.WebGLRenderer;
  readonly #output: THREE.WebGLRenderTarget | null;
  readonly #unlisten: () => void;
  readonly #camera = new THREE.PerspectiveCamera(38, 1, 0.02, 200);
  readonly #common = newCommonUniforms();
  readonly #passes: Passes;
  readonly #drawings: Drawings;
  /** Takes the present frame apart. */
  readonly probe: PixelProbe;
  readonly #surroundings = new Surroundings(this.#common);
  readonly #guides = new Guides();
  readonly #tracker = new Tracker();
  #view = { position: [0, 1.4, 4], target: [0, 1, 0], fieldOfView: 38, follows: true };
  readonly #figures: Figures;
  readonly #shots: Shots;
  #shown: StageView = 'picture';
  readonly #instants = new Instants();
  #followed = 0;
  #reader: FrameReader | null = null;
  /** The number of the last edit that was told, and of the last that was drawn. */
  #edit = 0;
  #drawnEdit = 0;
  #frame: Frame | null = null;
  #frameSince = 0;
  #lastStep = -1;
  #pace = { isPlaying: false, stepsPerSecond: 60 };
  #size = { width: 1, height: 1 };
  #fineness = 1;
  #isChanged = true;

  /** `failed` is called with what cannot be drawn. */
  constructor(
    context: StageContext,
    output: StageOutput = 'canvas',
    failed: (sentence: string) => void = () => undefined,
  ) {
    this.#renderer = context.renderer;
    this.#output = output === 'canvas' ? null : new THREE.WebGLRenderTarget(1, 1, { depthBuffer: false });
    this.#unlisten = context.listen((isLost) => {
      if (isLost) return;
      this.#isChanged = true;
      this.#lastStep = -1;
    });
    this.#passes = new Passes(this.#renderer, this.#common);
    this.#figures = new Figures(this.#passes.solids, this.#common);
    this.#drawings = new Drawings(
      this.#passes,
      this.#common,
      this.#camera,
      (n, firstBone) => this.#figures.of(n, firstBone),
      () => (this.#isChanged = true),
      failed,
    );
    this.#shots = new Shots(this.#passes, this.#drawings, this.#camera, this.#common);
    this.probe = new PixelProbe(this.#passes, this.#drawings, this.#camera, () => this.#present());
    this.#passes.solids.add(this.#surroundings.group);
    this.#passes.overs.add(this.#guides.group);
    this.#passes.warmSolids(this.#camera);
  }

  /** Takes one order from the page. */
  take(order: StageOrder): void {
    this.#isChanged = true;
    if (order.kind !== 'instant' && order.kind !== 'track') this.#instants.drawAnew();
    switch (order.kind) {
      case 'size':
        return this.#setSize(order.width, order.height);
      case 'camera':
        this.#view = order;
        return;
      case 'frames':
        this.#reader = new FrameReader(tripleBuffer(order.buffer, order.bytes, order.address));
        this.#lastStep = -1;
        return;
      case 'edited':
        this.#edit = order.edit;
        return;
      case 'figures':
        this.#followed = order.followed;
        return this.#setFigures(order.figures);
      case 'hiddenFigures':
        return this.#figures.hide(order.hidden);
      case 'pictures':
        return this.#drawings.setPictures(order.pictures);
      case 'meshes':
        return this.#drawings.setMeshes(order.meshes);
      case 'layers':
        this.#drawings.set(order.layers);
        return this.#drawings.load(this.#frame, this.rate);
      case 'guides':
        this.#guides.set(order.isShown ? order.guides : []);
        this.#surroundings.showGrid(order.isShown);
        return;
      case 'track':
        return this.#tracker.ask(order.matrices);
      case 'view':
        return this.#setView(order.view);
      case 'instant':
        return this.#instants.add(order.buffer, order.share);
      case 'forgetInstants':
        return this.#instants.forget();
      case 'surround':
        return this.#surroundings.set(order.surround);
      case 'tone':
        return this.#passes.lens.setTone(order.tone);
      case 'ownLights':
        return this.#drawings.setOwnLights(order.lights);
      case 'lens':
        return this.#passes.lens.set(order.lens);
      case 'air':
        this.#drawings.setMirrored(order.mirrored);
        return this.#setFog(order.fog);
      case 'figureMode':
        return this.#figures.setMode(order.mode);
      case 'cutOut':
        this.#surroundings.cutOut(order.isOn, order.groundHides);
        return this.#passes.clearTo(order.isOn ? 0 : 1);
      case 'dimOthers':
        return this.#drawings.dimOthers(order.salts);
      case 'lightAge':
        return this.#drawings.lightAge(order.salts, order.age);
      case 'pace':
        this.#pace = order;
        return;
    }
  }

  #setSize(width: number, height: number): void {
    this.#size = { width: Math.max(1, Math.round(width)), height: Math.max(1, Math.round(height)) };
    if (this.#output) this.#output.setSize(this.#size.width, this.#size.height);
    else this.#renderer.setSize(this.#size.width, this.#size.height, false);
    this.#sizePasses();
  }
  /** The canvas keeps its size: one that changes while it is drawn on is left black by some browsers. */
  #sizePasses(): void {
    const { width, height } = this.#size;
    this.#passes.setSize(
      Math.max(1, Math.round(width * this.#fineness)),
      Math.max(1, Math.round(height * this.#fineness)),
    );
  }
  /** Draws only a share of the canvas's points each way. */
  drawAt(fineness: number): void {
    this.#fineness = fineness;
    this.#isChanged = true;
    this.#sizePasses();
  }

  #setFog(fog: StageFog | null): void {
    this.#surroundings.setFog(fog);
    this.#drawings.setFog(fog !== null);
    this.#figures.setFog(fog !== null);
  }

  #setView(view: StageView): void {
    this.#shown = view;
    const hasView = isColoured(view);
    this.#common.view_kind.value = VIEW_KINDS[view];
    this.#drawings.setView(hasView, isNumbered(view));
    this.#surroundings.setView(hasView);
    this.#figures.setView(hasView);
    this.#passes.lens.setView(view);
  }

  #setFigures(figures: readonly StageFigure[]): void {
    // Programs of those that go are taken over by those that came, rather than made anew.
    this.#figures.set(figures, () => this.#passes.warmSolids(this.#camera));
    this.#drawings.figuresChanged();
  }

  #takeFrame(now: number): void {
    const frame = this.#reader?.newest();
    if (!frame) return;
    if (frame !== this.#frame || frame.step !== this.#lastStep) this.#frameSince = now;
    else return;
    this.#frame = frame;
    this.#lastStep = frame.step;
    this.#isChanged = true;
    this.#drawings.load(frame, this.rate);
  }

  /** How far the picture has come from the frame's start to its end: all the way while the clock stands. */
  #share(now: number): number {
    if (!this.#pace.isPlaying || !this.#frame) return 1;
    return Math.min(1, ((now - this.#frameSince) / 1000) * this.#pace.stepsPerSecond);
  }

  /** Waits until all that was ordered is drawn: what a picture truly costs is known only then. */
  finish(): void {
    const gl = this.#renderer.getContext();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, this.#onePixel);
  }

  readonly #onePixel = new Uint8Array(4);

  /** The last edit of which both are there, what the page told and a frame that has it. */
  get #wholeEdit(): number {
    return Math.min(this.#edit, this.#frame?.u32[HEADER_EDIT] ?? 0);
  }

  /** Whether an edit waits to be drawn that is there as a whole: people see at once what they do. */
  hasNewEdit(now: number): boolean {
    if (this.#edit === this.#drawnEdit) return false;
    this.#takeFrame(now);
    return this.#wholeEdit > this.#drawnEdit;
  }

  /** Draws if anything changed. Returns what was drawn, with the number of the last edit in it, or null. */
  draw(now: number, isForced = false): { step: number; drawn: number; edit: number } | null {
    this.#takeFrame(now);
    const share = this.#share(now);
    const isMoving = this.#pace.isPlaying && this.#frame !== null;
    const { width, height } = this.#size;
    this.#drawings.keepUp();
    const isBehind = this.#drawNextInstant(width / height);
    if (!this.#isChanged && !isMoving && !isForced && !isBehind) return null;
    this.#isChanged = false;
    this.#drawings.takeReady(this.#frame, this.rate);
    this.#prepare(share, width / height);
    this.#passes.draw(this.#camera, this.#drawings.needs, this.#output);
    this.#drawnEdit = Math.max(this.#drawnEdit, this.#wholeEdit);
    return { step: this.#frame?.step ?? 0, drawn: this.#frame?.particles ?? 0, edit: this.#drawnEdit };
  }

  /** Whether silhouettes of other instants are laid over the present one. */
  get #hasInstants(): boolean {
    return this.#shown === 'silhouette' && !this.#instants.isEmpty;
  }

  /** Draws the silhouette of one instant that is not drawn yet. Returns whether there was one. */
  #drawNextInstant(aspect: number): boolean {
    const next = this.#hasInstants && !this.#drawings.isWaiting ? this.#instants.next : null;
    if (next) {
      const present = this.#frame;
      this.#frame = next;
      this.#drawings.load(next, this.rate);
      this.#prepare(1, aspect);
      this.#instants.lay(this.#renderer, this.#passes.drawScene(this.#camera, this.#drawings.needs));
      this.#frame = present;
      if (present) this.#drawings.load(present, this.rate);
    }
    this.#passes.lens.setInstants(this.#hasInstants ? this.#instants.texture : null);
    return next !== null;
  }

  #prepare(share: number, aspect: number): void {
    const frame = this.#frame;
    this.#common.share.value = share;
    this.#common.rate.value = this.rate;
    const feet = this.#figures.pose(frame, share, (figure) => this.#drawings.isReplaced(figure));
    // The camera goes with one of them, hidden or not; each that is drawn casts a soft shadow under its feet.
    const [x, z] = feet[this.#followed] ?? [0, 0];
    this.#surroundings.setFeet(this.#figures.castShadows(feet));
    const matrixInto = (number: number, out: THREE.Matrix4) =>
      frame !== null && drawnMatrixInto(out, number, frame, share, this.#figures.all);
    this.#guides.follow(matrixInto);
    const [dx, dz] = this.#view.follows ? [x, z] : [0, 0];
    this.#tracker.note(matrixInto, dx, dz);
    placeCamera(this.#camera, this.#view, this.#shown, aspect, dx, dz);
    this.#drawings.follow(share, this.rate);
  }

  /** What the page asked to hear of, if it has changed since it was told. */
  tracked(): Tracked | null {
    return this.#tracker.news();
  }

  /** What was drawn last, as four bytes a pixel, rows from the top; of a scene that is drawn into a picture of its own. */
  async drawnPixels(): Promise<ImageData> {
    const { width, height } = this.#output!;
    const pixels = new Uint8Array(width * height * 4);
    await this.#renderer.readRenderTargetPixelsAsync(this.#output!, 0, 0, width, height, pixels);
    return fromTheTop(pixels, width, height);
  }

  /**
   * Draws the present frame, or another, every look made ready, at a size of its own and reads it back: four bytes a pixel,
   * rows from the top.
   */
  pixels(width: number, height: number, now: number, instant: Frame | null = null): ImageData {
    if (instant) this.#frame = instant;
    else this.#takeFrame(now);
    this.#drawings.finish(this.#frame, this.rate);
    this.#passes.setSize(width, height);
    this.#instants.drawAnew();
    while (this.#drawNextInstant(width / height));
    this.#prepare(1, width / height);
    const target = new THREE.WebGLRenderTarget(width, height);
    this.#passes.draw(this.#camera, this.#drawings.needs, target);
    const pixels = new Uint8Array(width * height * 4);
    this.#renderer.readRenderTargetPixels(target, 0, 0, width, height, pixels);
    target.dispose();
    this.#renderer.setRenderTarget(null);
    this.#sizePasses();
    this.#isChanged = true;
    return fromTheTop(pixels, width, height);
  }

  /** Draws a frame at a share of its step to be handed out, every look made ready. */
  async shoot(frame: Frame, share: number, shot: Shot): Promise<ShotPixels> {
    this.#prepareShot(frame, share, shot);
    return this.#shots.take(shot);
  }
  /** Draws numbers in place of it. */
  async shootMarks(frame: Frame, share: number, shot: MarkShot): Promise<ShotMarks> {
    this.#prepareShot(frame, share, shot);
    return this.#shots.takeMarks(shot);
  }
  #prepareShot(frame: Frame, share: number, { width, height }: Pick<Shot, 'width' | 'height'>): void {
    this.#frame = frame;
    this.#drawings.finish(frame, this.rate);
    this.#prepare(share, width / height);
  }

  /** The present frame, to be taken apart; null while there is none. */
  #present(): Probed | null {
    this.#takeFrame(performance.now());
    const frame = this.#frame;
    if (!frame) return null;
    this.#drawings.finish(frame, this.rate);
    const { width, height } = this.#passes.size;
    const prepare = () => {
      this.#prepare(1, width / height);
      this.#guides.group.visible = false;
    };
    const end = () => {
      this.#guides.group.visible = true;
      this.#isChanged = true;
    };
    return { frame, rate: this.rate, width, height, prepare, end };
  }

  /** The frame that is drawn; null before the first. */
  get frame(): Frame | null {
    return this.#frame;
  }

  /** Particles of a layer with some numbers; null while it is not drawn. */
  particlePictures(asked: ParticlePicturesAsked): Promise<ImageData | null> {
    return this.#drawings.particlePictures(asked);
  }

  /** Draw calls and triangles of the last picture. */
  get calls(): { calls: number; triangles: number } {
    return this.#passes.calls;
  }

  /** Steps a second that frames count in. */
  get rate(): number {
    return this.#frame?.rate || 60;
  }

  /** Gives back all that it holds of the graphics, which others draw on with. */
  dispose(): void {
    this.#unlisten();
    this.#setFigures([]);
    this.#guides.set([]);
    this.#drawings.dispose();
    this.#surroundings.dispose();
    this.#instants.dispose();
    this.#shots.dispose();
    this.#passes.dispose();
    this.#output?.dispose();
  }
}
