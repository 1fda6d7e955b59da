import type { Thing } from '../document/index.ts';
import { cos, multiplyInto, radians, sin } from '../maths/index.ts';
import { Poser } from './pose.ts';
import { clipNamed, type Clip, type Rig, type Track } from './rig.ts';

/** Forward travel below this many metres a cycle is sway, not a walk. */
const LEAST_TRAVEL = 0.01;

/** How far a translation track goes forward (+Z) from its first key to its last, in metres. */
const travelOf = ({ values }: Track): number => values[values.length - 1]! - values[2]!;

/** A figure or prop on the stage through time: its rig, clip, way and place, as one function of time. */
export class FigureTrack {
  readonly rig: Rig;
  readonly #clip: Clip | undefined;
  readonly #path: Thing['path'];
  readonly #from: number;
  /** Where it stands, how it faces and how large it is. */
  readonly #stand = new Float64Array(16);
  readonly #way = new Float64Array(16);
  readonly #poser: Poser;
  readonly #placement = new Float64Array(16);
  /** The bone whose forward travel is root motion, and that travel in metres a cycle. */
  readonly #root: number;
  readonly #travel: number;
  /** Where along its way the root stands at the clip's start. */
  readonly #start: number;
  readonly #world: Float64Array;

  /** @param base where the whole stage stands; null in the middle of the world. */
  constructor(
    rig: Rig,
    thing: Pick<Thing, 'clip' | 'path' | 'from' | 'at' | 'facing' | 'scale'>,
    base: Float64Array | null = null,
  ) {
    this.rig = rig;
    this.#clip = clipNamed(rig, thing.clip);
    this.#path = thing.path;
    this.#from = thing.from;
    const [c, s] = [thing.scale * cos(radians(thing.facing)), thing.scale * sin(radians(thing.facing))];
    const stand = [c, 0, -s, 0, 0, thing.scale, 0, 0, s, 0, c, 0, ...thing.at, 1];
    if (base) multiplyInto(this.#stand, 0, base, 0, stand, 0);
    else this.#stand.set(stand);
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
    const played = time + this.#from;
    const cycle = clip && clip.seconds > 0 ? Math.floor(played / clip.seconds) : 0;
    const within = clip && clip.seconds > 0 ? played - cycle * clip.seconds : 0;
    const placement = this.#placement;
    this.placeInto(0, placement);
    this.#poser.sample(clip, within, placement, out, (local) => {
      if (this.#travel === 0) return;
      const travelled = cycle * this.#travel + (local[this.#root * 10 + 2]! - this.#start);
      local[this.#root * 10 + 2] = this.#start;
      this.placeInto(travelled, placement);
    });
  }

  /** The matrix of the figure's feet after `travelled` metres along its way. */
  placeInto(travelled: number, out: Float64Array): void {
    if (this.#path.kind === 'spot') {
      out.set(this.#stand);
      return;
    }
    const radius = this.#path.radius;
    const angle = travelled / radius;
    const c = cos(angle);
    const s = sin(angle);
    // Round its place, facing along the circle: forward is +Z where the walk begins.
    const way = this.#way;
    way.fill(0);
    way[0] = way[10] = c;
    way[2] = -s;
    way[5] = way[15] = 1;
    way[8] = s;
    way[12] = -radius * c;
    way[14] = radius * s;
    multiplyInto(out, 0, this.#stand, 0, way, 0);
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
