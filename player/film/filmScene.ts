import { wholeOf } from '@jinx/core/editing';
import type { FilmInstant, FilmSettings } from '@jinx/core/formats';
import {
  DEFAULT_RATE,
  EffectClock,
  newFrame,
  playAlone,
  withGiven,
  type Frame,
  type Instance,
} from '@jinx/core/simulation';
import { Stage, type Mark, type ShotMarks, type ShotPixels, type StageContext, type StageOrder } from '@jinx/stage';
import { FIRST_VIEW, firstCamera } from '../scene/cameras.ts';
import { SceneFeed } from '../scene/feed.ts';
import type { FilmSource } from './protocol.ts';

/** Layers that are flat and unlit face somewhere too: sprites as balls do, ribbons as they lie. */
const facing = (order: StageOrder): StageOrder =>
  order.kind !== 'layers'
    ? order
    : {
        kind: 'layers',
        layers: order.layers.map((layer) => {
          const lit = layer.drawn.kind === 'sprite' ? 'ball' : 'card';
          return layer.lit === 'unlit' ? { ...layer, lit } : layer;
        }),
      };

/** An effect that is played and drawn for pictures of it. Once its settings are others, another is made. */
export class FilmScene {
  readonly #settings: FilmSettings;
  readonly #world: Instance;
  readonly #frame: Frame;
  readonly #stage: Stage;
  /** Draws numbers in place of the picture; made once it is needed. */
  #marking: Stage | null = null;
  readonly #mark: () => Stage;

  /** @throws where there is no room to compute it. */
  constructor(
    { effect: document, rigs, pictures, tone, kernels }: FilmSource,
    settings: FilmSettings,
    context: StageContext,
  ) {
    this.#settings = settings;
    const { seed, dials, quality, letGoAt } = settings;
    const given = { ...(seed === null ? {} : { seed }), dials, tier: quality };
    const effect = withGiven(wholeOf(document).effect, given);
    const here = new Map(rigs);
    const clock = new EffectClock(effect.stretches, Infinity, DEFAULT_RATE);
    const letGo = letGoAt === null || clock.hold === 0 ? {} : { letGoStep: clock.stepAt(letGoAt) };
    this.#world = playAlone(effect, here, letGo, { kernels });
    this.#frame = newFrame(this.#world);
    const picturesHere = new Map(pictures.map((picture) => [picture.hash, picture]));
    const made = (isMarking: boolean): Stage => {
      const stage = new Stage(context, 'picture');
      if (isMarking) stage.take({ kind: 'view', view: 'identity' });
      const feed = new SceneFeed({ rigs: here, pictures: picturesHere }, (order) =>
        stage.take(isMarking ? facing(order) : order),
      );
      feed.see({ isRaw: !settings.bloom, isDim: false, alone: null });
      feed.show(effect, 0);
      const { position, target, fieldOfView, follows } = settings.camera ?? firstCamera(effect) ?? FIRST_VIEW;
      stage.take({ kind: 'camera', position: [...position], target: [...target], fieldOfView, follows });
      stage.take({ kind: 'tone', tone });
      stage.take({ kind: 'guides', guides: [], isShown: false });
      // Numbers are of the effect alone.
      const mode = isMarking && settings.figure === 'drawn' ? 'hides' : settings.figure;
      stage.take({ kind: 'figureMode', mode });
      stage.take({ kind: 'cutOut', isOn: isMarking || settings.behind === 'nothing', groundHides: settings.ground });
      return stage;
    };
    this.#stage = made(false);
    this.#mark = () => made(true);
  }

  /** Computes up to an instant. Returns false when `isCancelled` has said so before. */
  async goTo({ step }: FilmInstant, isCancelled: () => boolean): Promise<boolean> {
    while (this.#world.step !== step) {
      const until = performance.now() + 50;
      this.#world.advance(step, () => performance.now() > until);
      if (isCancelled()) return false;
      // Orders that came meanwhile are heard.
      if (this.#world.step !== step) await new Promise((done) => setTimeout(done));
    }
    this.#world.writeFrame(this.#frame);
    return true;
  }

  /** Draws the instant that was gone to. */
  shoot({ share }: FilmInstant, as: Partial<FilmSettings> = {}): Promise<ShotPixels> {
    const settings = { ...this.#settings, ...as };
    const { width, height, supersampling, behind, apart, bits, passes } = settings;
    const isLinear = settings.as === 'exr';
    return this.#stage.shoot(this.#frame, share, {
      ...{ width, height, supersampling, apart },
      isCutOut: behind === 'nothing',
      picture: isLinear ? null : settings.as === 'png' && bits === 16 ? 'floats' : 'bytes',
      linear: isLinear,
      factor: isLinear && passes,
    });
  }

  /** Draws numbers in its place: those that are asked for with these settings; null where none are. */
  async shootMarks({ share }: FilmInstant): Promise<ShotMarks | null> {
    const { as, passes, motion, normals, width, height, rate } = this.#settings;
    const marks: Mark[] = as === 'exr' && passes ? ['distance', 'identity', 'bend'] : [];
    if (as === 'flipbook' && motion) marks.push('motion');
    if (as === 'flipbook' && normals) marks.push('normal');
    if (marks.length === 0) return null;
    this.#marking ??= this.#mark();
    return this.#marking.shootMarks(this.#frame, share, { width, height, marks, seconds: 1 / rate });
  }

  dispose(): void {
    this.#stage.dispose();
    this.#marking?.dispose();
    this.#world.leave();
  }
}
