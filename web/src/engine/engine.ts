import { diff, listed, picturesOf, type Effect, type Vector } from '@jinx/core/document';
import type { StageRigs } from '@jinx/core/checks';
import { wholeOf } from '@jinx/core/editing';
import { readCanonicalPicture, readRig, rigsOf } from '@jinx/core/formats';
import type { Rig } from '@jinx/core/geometry';
import { EffectClock, type Census, type Pull } from '@jinx/core/simulation';
import type {
  FilmSample,
  FromStage,
  Guide,
  PixelStep,
  ProbedPixel,
  StageFigure,
  StageMesh,
  StagePicture,
  StageView,
  ToStage,
  Tracked,
} from '@jinx/stage';
import { shallowReactive, shallowRef } from 'vue';
import plainUrl from '../../../core/kernels/plain.wasm?url';
import sharedUrl from '../../../core/kernels/shared.wasm?url';
import { api } from '../api';
import { AS_IT_IS, drawnFog, drawnSurroundings, drawnLayers, drawnLens, type Seen, textOfLayers } from './drawn';
import type { View } from './view';
import type { FromSimulation, LayerCount, SimulationState, ToSimulation, Outside } from './protocol';

const COUNTS_EVERY_MILLISECONDS = 250;

const bytesAt = async (url: string) => new Uint8Array(await (await fetch(url)).arrayBuffer());

/** Which things stand on the stage, what each is made of, and which meshes the effect has beside. */
const thingsText = (effect: Effect): string =>
  JSON.stringify([
    listed(effect.stage.things)
      .map(({ id, item }) => [id, item.asset])
      .sort(),
    rigsOf(effect).sort(),
  ]);

/** The effect with only those things on its stage that are here: what could not be had leaves the rest alone. */
function withThingsOf(effect: Effect, known: ReadonlyMap<string, unknown>): Effect {
  const { things } = effect.stage;
  const order = things.order.filter((id) => known.has(things.byId[id]!.asset));
  return order.length === things.order.length
    ? effect
    : { ...effect, stage: { ...effect.stage, things: { ...things, order } } };
}

/** Whether an effect shows a picture that the stage does not have. */
const hasNewPictures = (effect: Effect, sent: ReadonlySet<string>): boolean =>
  picturesOf(effect).some(({ asset }) => !sent.has(asset));

/**
 * The page's hold on its two workers, the simulation and the stage. What it knows of them arrives as messages; frames go
 * from one to the other through shared memory and never pass through here.
 */
export class Engine {
  readonly state = shallowReactive({
    step: 0,
    sheetTime: 0,
    living: 0,
    layers: [] as LayerCount[],
    stepMilliseconds: 0,
    drawMilliseconds: 0,
    isExact: true,
    isPlaying: false,
    progress: 1,
    isLetGo: false,
    speed: 1,
  });
  readonly failure = shallowRef('');
  /** Whether the graphics were taken away, and are not back yet. */
  readonly isLost = shallowRef(false);
  /** Where the matrices that were asked for stand in the picture last drawn. */
  readonly tracked = shallowRef<Tracked>({ matrices: new Float32Array(0), followed: [0, 0] });
  /** How many silhouettes of other instants the stage has been given. */
  readonly instants = shallowRef(0);
  #instantsId = 0;
  /** The rigs of the things on the stage, by the id of the thing. */
  readonly rigs = shallowRef<StageRigs>(new Map());
  /** Every mesh the effect uses, by the hash of its asset. */
  readonly meshes = shallowRef<ReadonlyMap<string, Rig>>(new Map());
  /** Pictures that could not be had, by hash, with the reason. */
  readonly missing = shallowRef<ReadonlyMap<string, string>>(new Map());
  /** Blows and signals that came from outside, as far as they are still told of. */
  readonly outside = shallowRef<Outside>({ strikes: [], signals: [] });
  readonly #simulation = new Worker(new URL('./simulationWorker.ts', import.meta.url), { type: 'module' });
  readonly #stage = new Worker(new URL('../../../stage/worker.ts', import.meta.url), { type: 'module' });
  readonly #helper = new Worker(new URL('./helperWorker.ts', import.meta.url), { type: 'module' });
  readonly #answers = new Map<number, (message: never) => void>();
  readonly #ready: Promise<void>;
  readonly #listeners = new Set<(state: SimulationState) => void>();
  #countsAt = 0;
  #nextAnswer = 1;
  /** Which thing is made of which asset, as far as it is loaded. */
  #thingsText = '';
  #figuresText = '';
  /** Canonical rigs by their hash, kept once they were fetched. */
  readonly #assets = new Map<string, { bytes: Uint8Array; rig: Rig }>();
  readonly #pictures = new Map<string, StagePicture>();
  /** Those that the stage has. */
  #sentPictures: ReadonlySet<string> = new Set();
  #meshesText = '';
  #layersText = '';
  /** Edits made so far. */
  #edits = 0;
  /** Hears of each edit as it is drawn: its number, and when by the system's clock. */
  onShown: ((edit: number, at: number) => void) | null = null;
  #shown: Effect | null = null;
  /** The document that the simulation was told last. */
  #told: Effect | null = null;
  #seen: Seen = AS_IT_IS;
  /** Where the playhead was last sent, until it is there. */
  #wantedStep: number | null = null;

  constructor() {
    this.#simulation.onmessage = ({ data }: MessageEvent<FromSimulation>) => this.#hearSimulation(data);
    this.#stage.onmessage = ({ data }: MessageEvent<FromStage>) => this.#hearStage(data);
    for (const worker of [this.#simulation, this.#stage, this.#helper])
      worker.onerror = (event) =>
        (this.failure.value = `A part of Jinx stopped: ${event.message || 'unknown fault'}. Your work is saved; reload the page.`);
    this.#ready = this.#start();
  }

  async #start(): Promise<void> {
    const kernels = { shared: await bytesAt(sharedUrl), plain: await bytesAt(plainUrl) };
    const channel = new MessageChannel();
    this.#helper.postMessage({ kernels, port: channel.port1 }, [channel.port1]);
    this.#simulation.postMessage({ kind: 'start', kernels, helper: channel.port2 } satisfies ToSimulation, [
      channel.port2,
    ]);
  }

  #tell(order: ToSimulation): void {
    void this.#ready.then(() => this.#simulation.postMessage(order));
  }
  tellStage(order: ToStage, transfer: Transferable[] = []): void {
    this.#stage.postMessage(order, transfer);
  }

  #hearSimulation(message: FromSimulation): void {
    if (message.kind === 'frames') this.tellStage(message);
    else if (message.kind === 'state') {
      const wasPlaying = this.state.isPlaying;
      this.#show(message.state);
      for (const heard of this.#listeners) heard(message.state);
      if (this.state.step === this.#wantedStep || this.state.isPlaying) this.#wantedStep = null;
      if (wasPlaying !== this.state.isPlaying) this.#pace();
    } else if (message.kind === 'instant') this.#takeInstant(message);
    else if (message.kind === 'outside') this.outside.value = message.outside;
    else if (message.kind === 'failed') this.failure.value = message.sentence;
    else this.#answer(message.id, message);
  }

  #takeInstant({ id, buffer, mostJoints, share }: FromSimulation & { kind: 'instant' }): void {
    if (id !== this.#instantsId) return;
    this.instants.value++;
    this.tellStage({ kind: 'instant', buffer, mostJoints, share }, [buffer]);
  }

  /** The playhead moves with every report; counts change slowly enough to be read, and at once while nothing plays or when they have become exact. */
  #show({ living, layers, stepMilliseconds, ...clock }: SimulationState): void {
    const isSettled = clock.isExact && !this.state.isExact;
    Object.assign(this.state, clock);
    const now = performance.now();
    if (clock.isPlaying && !isSettled && now - this.#countsAt < COUNTS_EVERY_MILLISECONDS) return;
    this.#countsAt = now;
    Object.assign(this.state, { living, layers, stepMilliseconds });
  }

  /** Hears every report of the simulation. Returns what ends it. */
  listen(heard: (state: SimulationState) => void): () => void {
    this.#listeners.add(heard);
    return () => this.#listeners.delete(heard);
  }

  #hearStage(message: FromStage): void {
    if (message.kind === 'drawn') this.state.drawMilliseconds = message.drawMilliseconds;
    else if (message.kind === 'tracked') this.tracked.value = message;
    else if (message.kind === 'shown') this.onShown?.(message.edit, message.at);
    else if (message.kind === 'lost') this.isLost.value = message.isLost;
    else if (message.kind === 'failed') this.failure.value = message.sentence;
    else this.#answer(message.id, message);
  }

  #answer(id: number, message: unknown): void {
    this.#answers.get(id)?.(message as never);
    this.#answers.delete(id);
  }
  #asked<T>(send: (id: number) => void): Promise<T> {
    const id = this.#nextAnswer++;
    return new Promise((resolve) => {
      this.#answers.set(id, resolve as (message: never) => void);
      send(id);
    });
  }

  /** Fetches the pictures that looks show and hands them to the stage; what cannot be had is told in `missing`, the rest goes on. */
  async #fetchPictures(effect: Effect): Promise<void> {
    const hashes = [...new Set(picturesOf(effect).map(({ asset }) => asset))].sort();
    const missing = new Map<string, string>();
    await Promise.all(
      hashes.map(async (hash) => {
        if (this.#pictures.has(hash)) return;
        try {
          this.#pictures.set(hash, { hash, texture: readCanonicalPicture(await api.asset(hash)) });
        } catch (error) {
          missing.set(hash, (error as Error).message);
        }
      }),
    );
    this.#tellMissing('pictures', missing);
    const known = hashes.filter((hash) => this.#pictures.has(hash));
    if (known.length === this.#sentPictures.size && known.every((hash) => this.#sentPictures.has(hash))) return;
    this.#sentPictures = new Set(known);
    this.tellStage({ kind: 'pictures', pictures: hashes.flatMap((hash) => this.#pictures.get(hash) ?? []) });
  }

  readonly #gone = { rigs: new Map<string, string>(), pictures: new Map<string, string>() };

  #tellMissing(what: 'rigs' | 'pictures', gone: Map<string, string>): void {
    this.#gone[what] = gone;
    const missing = new Map([...this.#gone.rigs, ...this.#gone.pictures]);
    if ([...missing].toString() !== [...this.missing.value].toString()) this.missing.value = missing;
  }

  /** Loads an effect and the rigs it uses, and shows it; what cannot be had is told in `missing`, the rest goes on. */
  async load(document: Effect, budget: number): Promise<void> {
    const { effect } = wholeOf(document);
    await Promise.all([this.#fetchThings(effect), this.#fetchPictures(effect)]);
    const rigs = rigsOf(effect).flatMap((hash): [string, Uint8Array][] => {
      const asset = this.#assets.get(hash);
      return asset ? [[hash, asset.bytes]] : [];
    });
    const edit = ++this.#edits;
    this.#told = effect;
    this.#tell({ kind: 'load', effect, rigs, budget, edit });
    this.#showStage(effect, edit);
  }

  async #fetchThings(effect: Effect): Promise<void> {
    const missing = new Map<string, string>();
    for (const hash of rigsOf(effect)) {
      if (this.#assets.has(hash)) continue;
      try {
        const bytes = await api.asset(hash);
        this.#assets.set(hash, { bytes, rig: readRig(bytes) });
      } catch (error) {
        missing.set(hash, (error as Error).message);
      }
    }
    this.#tellMissing('rigs', missing);
    this.#thingsText = thingsText(effect);
    const known = rigsOf(effect).filter((hash) => this.#assets.has(hash));
    const staged = withThingsOf(effect, this.#assets);
    const text = JSON.stringify([thingsText(staged), known]);
    if (text === this.#figuresText) return;
    this.#figuresText = text;
    // In the order of the scene: by id, each thing's bones and then its feet.
    const things = listed(staged.stage.things).sort((a, b) => (a.id < b.id ? -1 : 1));
    let boneStart = 0;
    const figures = things.map(({ item }): StageFigure => {
      const { rig } = this.#assets.get(item.asset)!;
      const figure = { mesh: rig.mesh, texture: rig.texture, inverseBind: rig.inverseBind, boneStart };
      boneStart += rig.bones.length + 1;
      return figure;
    });
    this.rigs.value = new Map(things.map(({ id, item }) => [id, this.#assets.get(item.asset)!.rig]));
    this.meshes.value = new Map(known.map((hash) => [hash, this.#assets.get(hash)!.rig]));
    const [first] = staged.stage.things.order;
    this.tellStage({
      kind: 'figures',
      figures,
      followed: Math.max(
        0,
        things.findIndex(({ id }) => id === first),
      ),
    });
  }

  /** Hands the stage the meshes that particles are drawn as. */
  #sendMeshes(effect: Effect): void {
    const hashes = listed(effect.layers).flatMap(({ item: { drawn } }) =>
      drawn.kind === 'mesh' ? listed(drawn.meshes).map(({ item }) => item.asset) : [],
    );
    const known = [...new Set(hashes)].sort().filter((hash) => this.#assets.has(hash));
    if (known.join() === this.#meshesText) return;
    this.#meshesText = known.join();
    const meshes = known.map((hash): StageMesh => {
      const { mesh, texture } = this.#assets.get(hash)!.rig;
      return { hash, mesh, texture };
    });
    this.tellStage({ kind: 'meshes', meshes });
  }

  /** Takes a changed document; only what it reaches is computed again. */
  async edit(document: Effect, budget: number): Promise<void> {
    const { effect } = wholeOf(document);
    if (thingsText(effect) !== this.#thingsText) return this.load(effect, budget);
    const edit = ++this.#edits;
    this.#tell({ kind: 'edit', changes: diff(this.#told, effect), edit });
    this.#told = effect;
    if (hasNewPictures(effect, this.#sentPictures)) await this.#fetchPictures(effect);
    this.#showStage(effect, edit);
  }

  #showStage(effect: Effect, edit = this.#edits): void {
    this.#shown = effect;
    this.#sendMeshes(effect);
    const layers = drawnLayers(withThingsOf(effect, this.#assets), this.#seen);
    const text = textOfLayers(layers);
    if (text !== this.#layersText) this.tellStage({ kind: 'layers', layers });
    this.#layersText = text;
    this.tellStage({ kind: 'surround', surround: effect.stage.surround });
    this.tellStage({ kind: 'lens', lens: drawnLens(effect, this.#seen) });
    this.tellStage({
      kind: 'air',
      fog: drawnFog(effect, this.#seen),
      mirrored: drawnSurroundings(effect, this.#seen),
    });
    this.tellStage({ kind: 'edited', edit });
  }

  /** Shows the effect raw, or dimmed, or a step of a look alone, or as it is. */
  see(seen: Seen): void {
    this.#seen = seen;
    if (this.#shown) this.#showStage(this.#shown);
  }

  #pace(): void {
    this.tellStage({ kind: 'pace', isPlaying: this.state.isPlaying, stepsPerSecond: 60 * this.state.speed });
  }

  /** The number of the last edit that was made. */
  get edits(): number {
    return this.#edits;
  }

  play(): void {
    this.#tell({ kind: 'play' });
  }
  pause(): void {
    this.#tell({ kind: 'pause' });
  }
  setSpeed(speed: number): void {
    this.state.speed = speed;
    this.#tell({ kind: 'speed', speed });
    this.#pace();
  }
  /** Steps on or back from where the playhead is, or is still on its way to. */
  stepBy(steps: number): void {
    this.pause();
    this.seek(Math.max(0, (this.#wantedStep ?? this.state.step) + steps));
  }
  seek(step: number, letGoStep?: number): void {
    this.#wantedStep = step;
    this.#tell(letGoStep === undefined ? { kind: 'seek', step } : { kind: 'seek', step, letGoStep });
  }
  /** Goes to a place on the time sheet, in seconds; past the hold the effect is seen as let go after one turn of it. */
  seekSheet(stretches: Effect['stretches'], seconds: number): void {
    const clock = new EffectClock(stretches);
    const { opening, hold } = clock;
    const isClosing = hold > 0 && seconds > opening + hold;
    this.seek(clock.stepAt(seconds), isClosing ? clock.stepAt(opening + hold) : undefined);
  }
  /** A blow now from one place toward another: of the world, or seen from where a thing stands. */
  strike(from: Vector, to: Vector, beside: string | null): void {
    this.#tell({ kind: 'strike', from, to, beside });
  }
  /** Takes what came from outside elsewhere. */
  takeOutside(outside: Outside): void {
    this.#tell({ kind: 'outside', outside });
  }
  /** A signal of the effect, announced now. */
  announce(signal: string): void {
    this.#tell({ kind: 'announce', signal });
  }
  letGo(): void {
    this.#tell({ kind: 'letGo' });
  }

  startStage(canvas: HTMLCanvasElement | OffscreenCanvas, width: number, height: number): void {
    const offscreen = canvas instanceof OffscreenCanvas ? canvas : canvas.transferControlToOffscreen();
    this.tellStage({ kind: 'start', canvas: offscreen, width, height }, [offscreen]);
  }
  view(view: View): void {
    this.tellStage({ kind: 'camera', ...view });
  }
  /** Asks to hear of some of a frame's matrices, as they are drawn, in `tracked`. */
  track(matrices: number[]): void {
    this.tellStage({ kind: 'track', matrices });
  }
  /** While a layer's source or a force is dragged, the others stand at their fullest instant; null ends that. */
  compare(layerId: string | null): void {
    this.#tell({ kind: 'compare', layer: layerId });
  }
  show(view: StageView): void {
    this.tellStage({ kind: 'view', view });
  }
  /** Lays silhouettes of other instants over the present one, in seconds of the time sheet; none takes them away. */
  layInstants(seconds: number[]): void {
    this.#instantsId++;
    this.instants.value = 0;
    this.tellStage({ kind: 'forgetInstants' });
    this.#tell({ kind: 'instants', id: this.#instantsId, seconds });
  }
  #guides: [guides: Guide[], isShown: boolean] = [[], false];
  guides(guides: Guide[], isShown: boolean): void {
    this.#guides = [guides, isShown];
    this.tellStage({ kind: 'guides', guides, isShown });
  }

  hash(): Promise<{ step: number; hash: string | null }> {
    return this.#asked((id) => this.#tell({ kind: 'hash', id }));
  }
  inspect(
    layer: string,
  ): Promise<{ step: number; positions: Float32Array; ages: Float32Array; colours: Float32Array }> {
    return this.#asked((id) => this.#tell({ kind: 'inspect', id, layer }));
  }
  /** All the living of a layer, as the simulation stands. */
  census(layer: string): Promise<{ census: Census }> {
    return this.#asked((id) => this.#tell({ kind: 'census', id, layer }));
  }
  /** What each force does to a particle, as the simulation stands; null where that was given up for another question. */
  pulls(layer: string, key: number): Promise<{ step: number; pulls: readonly Pull[] | null }> {
    return this.#asked((id) => this.#tell({ kind: 'pulls', id, layer, key }));
  }
  /** The picture without guides, which come back at once. */
  barePixels(width: number, height: number): Promise<{ rgba: Uint8Array }> {
    const [guides, isShown] = this.#guides;
    this.tellStage({ kind: 'guides', guides: [], isShown: false });
    const bare = this.pixels(width, height);
    this.tellStage({ kind: 'guides', guides, isShown });
    return bare;
  }
  pixels(width: number, height: number): Promise<{ rgba: Uint8Array }> {
    return this.#asked((id) => this.tellStage({ kind: 'pixels', id, width, height }));
  }

  /** What the look of the layer of that salt has become after one of its steps; size 0 where the stage does not show it. */
  stepPicture(salt: number, step: string, size: number): Promise<{ rgba: Uint8Array; size: number }> {
    return this.#asked((id) => this.tellStage({ kind: 'stepPicture', id, salt, step, size }));
  }

  /** One particle of the layer of that salt at successive ages; size 0 where the stage does not show it. */
  film(salt: number, samples: FilmSample[], size: number): Promise<{ rgba: Uint8Array; size: number }> {
    return this.#asked((id) => this.tellStage({ kind: 'film', id, salt, samples, size }));
  }
  /** Lights what has an age in the layers of those salts, and dims the rest; none ends that. */
  lightAge(salts: number[], age: number): void {
    this.tellStage({ kind: 'lightAge', salts, age });
  }

  /** What made a pixel of the stage, 0 to 1 from its left and its top; null while nothing is drawn. */
  pixel(x: number, y: number): Promise<{ pixel: ProbedPixel | null }> {
    return this.#asked((id) => this.tellStage({ kind: 'pixel', id, x, y }));
  }
  /** What the layer of that salt gives to it after each step of its look. */
  pixelSteps(x: number, y: number, salt: number): Promise<{ steps: readonly PixelStep[] | null }> {
    return this.#asked((id) => this.tellStage({ kind: 'pixelSteps', id, x, y, salt }));
  }

  timeDrawing(times: number): Promise<{ milliseconds: number[] }> {
    return this.#asked((id) => this.tellStage({ kind: 'time', id, times }));
  }

  stop(): void {
    for (const worker of [this.#simulation, this.#stage, this.#helper]) worker.terminate();
  }
}
