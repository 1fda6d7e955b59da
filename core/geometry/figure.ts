import type { Figure } from '../document/index.ts';
import { cos, sin } from '../maths/index.ts';
import { Poser } from './pose.ts';
import { clipNamed, type Clip, type Rig, type Track } from './rig.ts';

/** Forward travel below this many metres a cycle is sway, not a walk. */
const LEAST_TRAVEL = 0.01;

/** How far a translation track goes forward (+Z) from its first key to its last, in metres. */
const travelOf = ({ values }: Track): number => values[values.length - 1]! - values[2]!;

/** A figure on the stage through time: its rig, clip and way, as one function of time. */
export class FigureTrack {
  readonly rig: Rig;
  readonly #clip: Clip | undefined;
  readonly #path: Figure['path'];
  readonly #poser: Poser;
  readonly #placement = new Float64Array(16);
  /** The bone whose forward travel is root motion, and that travel in metres a cycle. */
  readonly #root: number;
  readonly #travel: number;
  /** Where along its way the root stands at the clip's start. */
  readonly #start: number;
  readonly #world: Float64Array;

  constructor(rig: Rig, figure: Pick<Figure, 'clip' | 'path'>) {
    this.rig = rig;
    this.#clip = clipNamed(rig, figure.clip);
    this.#path = figure.path;
    this.#poser = new Poser(rig);
    const track = this.#clip?.tracks.find(
      (candidate) => candidate.property === 'translation' && Math.abs(travelOf(candidate)) > LEAST_TRAVEL,
    );
    this.#root = track?.bone ?? -1;
    this.#travel = track ? travelOf(track) : 0;
    this.#start = track?.values[2] ?? 0;
    this.#world = new Float64Array(rig.bones.length * 16);
  }

  /** Metres a second the figure walks. */
  get speed(): number {
    return this.#clip && this.#clip.seconds > 0 && this.#path.kind === 'circle'
      ? this.#travel / this.#clip.seconds
      : 0;
  }

  /** Writes the world matrices of all bones at `time` seconds, 16 numbers each. */
  worldInto(time: number, out: Float64Array): void {
    const clip = this.#clip;
    const cycle = clip && clip.seconds > 0 ? Math.floor(time / clip.seconds) : 0;
    const within = clip && clip.seconds > 0 ? time - cycle * clip.seconds : 0;
    const placement = this.#placement;
    placement.fill(0);
    placement[0] = placement[5] = placement[10] = placement[15] = 1;
    this.#poser.sample(clip, within, placement, out, (local) => {
      if (this.#travel === 0) return;
      const travelled = cycle * this.#travel + (local[this.#root * 10 + 2]! - this.#start);
      local[this.#root * 10 + 2] = this.#start;
      this.placeInto(travelled, placement);
    });
  }

  /** The matrix of the figure's feet after `travelled` metres along its way. */
  placeInto(travelled: number, out: Float64Array): void {
    out.fill(0);
    out[5] = out[15] = 1;
    if (this.#path.kind === 'spot') {
      out[0] = out[10] = 1;
      return;
    }
    const radius = this.#path.radius;
    const angle = travelled / radius;
    const c = cos(angle);
    const s = sin(angle);
    // Round the stage's middle, facing along the circle: forward is +Z where the walk begins.
    out[0] = c;
    out[2] = -s;
    out[8] = s;
    out[10] = c;
    out[12] = -radius * c;
    out[14] = radius * s;
  }

  /** The feet's matrix at a time. */
  rootInto(time: number, out: Float64Array): void {
    const clip = this.#clip;
    if (this.#travel === 0 || !clip) {
      this.placeInto(0, out);
      return;
    }
    this.worldInto(time, this.#world);
    out.set(this.#placement);
  }
}
