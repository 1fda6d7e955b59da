import type { Effect, Given, Layer } from '../../document/index.ts';
import type { Rig } from '../../geometry/index.ts';
import { brightnessOf } from '../../maths/index.ts';
import type { Numbers } from '../values/layerReaders.ts';
import type { GroupFrame } from '../scene/groups.ts';
import type { Reading } from '../values/reading.ts';
import type { Scene } from '../scene/scene.ts';

/**
 * Words of one birth, as a source writes it:
 *
 * | AT         | where, in metres of the world                                                    |
 * | OUT        | the shape's outward direction there                                              |
 * | NORMAL     | the normal of the surface there                                                  |
 * | ALONG      | a direction within the surface: along the path, round the axis, along an edge    |
 * | CARRIER    | what the particle rides on, as a packed rigid place (maths/rigid.ts)             |
 * | UV, COLOUR | of the mesh there; colour in linear red, green, blue                             |
 * | VELOCITY   | of the particle it is born on or of, m/s; 0 where that is none                   |
 * | STRENGTH   | of the blow it is born of, 0 to 1; 1 where that is none                          |
 * | SPOT       | triangle or bone it rides on, and weights of the triangle's second and third end |
 */
export const AT = 0;
export const OUT = 3;
export const NORMAL = 6;
export const ALONG = 9;
export const CARRIER = 12;
export const UV = 19;
export const COLOUR = 21;
export const SPOT = 24;
export const VELOCITY = 27;
export const STRENGTH = 30;
export const BIRTH_WORDS = 31;

/** Writes what channels may take of where a particle is born. */
export function givenInto(out: Record<Given, number>, birth: ArrayLike<number>): void {
  out.u = birth[UV]!;
  out.v = birth[UV + 1]!;
  out.brightness = brightnessOf([birth[COLOUR]!, birth[COLOUR + 1]!, birth[COLOUR + 2]!]);
  out.strength = birth[STRENGTH]!;
}

/** Whose birth, which number in its layer, and when (seconds). The reading is set to the same moment. */
export interface BirthAsk {
  key: number;
  number: number;
  time: number;
  /** The same instant as a share of its step. */
  share: number;
  reading: Reading;
  /** Where it is born instead of at the source's own place, as a packed rigid place; null for births of the layer's own. */
  about: Float64Array | null;
  /** Which of the source's own events it is born of; 0 where it has none. */
  event: number;
}

/** What a source makes of an event in a step: how many are born at a share of it. */
export type TakeEvent = (share: number, count: number, event: number) => void;

/** A layer's source: where particles are born, and how what they ride on moves. */
export interface SourceReader {
  /** False where nothing can be born: no such thing, no such bone, no skin. */
  readonly canBear: boolean;
  /** Whether it bears on particles of another layer: what is due while none lives is lost. */
  readonly needsParents?: boolean;
  /** What particles ride on: the source as a whole, or their own bone or spot of skin. */
  readonly rides: 'whole' | 'bone' | 'spot' | 'nothing';
  /** Square metres that births can fall on; 0 where that means nothing. */
  readonly area: number;
  bearInto(out: Float64Array, ask: BirthAsk): void;
  /** Tells the births of its own events within a step; where it is missing, births come of rates, bursts and ways. */
  eventsIn?(from: number, to: number, reading: Reading, take: TakeEvent): void;
  /** Writes where the source itself is, for distance travelled. */
  originInto(out: Float64Array, time: number): void;
  /** Writes where a spot is on the mesh at rest; missing where particles are not born on a mesh. */
  restInto?(out: Float64Array, spot: number, second: number, third: number): void;
  /** Writes the packed rigid place, at a time, of what a particle born on `spot` rides on. */
  carrierInto(out: Float64Array, o: number, time: number, spot: number, second: number, third: number): void;
}

/** One field an axis. */
type Fields = readonly [Float32Array, Float32Array, Float32Array];

/** The particles of another layer as births on them read them: fields a particle, the first `count` of them taken by the living. */
export interface Parents {
  readonly living: number;
  readonly count: number;
  /** Where each is at the start and the end of the step (m), and how fast it goes (m/s). */
  readonly from: Fields;
  readonly position: Fields;
  readonly velocity: Fields;
  /** Linear colour taken at birth. */
  readonly tint: Fields;
  readonly life: Float32Array;
  readonly birthStep: Int32Array;
  readonly birthFraction: Float32Array;
  readonly key: Uint32Array;
  /** Packed normals of what each was born on. */
  readonly facing: Uint32Array;
}

/** The mesh that a layer is drawn as, as a function of time. */
export interface DrawnMesh {
  readonly rig: Rig;
  /** When the effect begins, in its time. */
  readonly beginsAt: number;
  /** Writes what takes its vertices into the world at a time: its axes may be of any length. */
  readonly matrixInto: (out: Float64Array, time: number) => void;
  /** Its other shape, and how far it has taken it at a time: 0 not at all, 1 wholly. */
  readonly other: { readonly positions: Float32Array; readonly shareAt: (time: number) => number } | null;
}

/** What a source is told when it is bound to a layer. */
export interface SourceSurroundings {
  readonly effect: Pick<Effect, 'measures'>;
  readonly layer: Layer;
  readonly scene: Scene;
  readonly group: GroupFrame;
  readonly numbers: Numbers;
  /** The particles of another layer, null where there is none that can bear any. */
  readonly populationOf: (id: string) => Parents | null;
  /** The mesh that another layer is drawn as; null where none of it stands. */
  readonly drawnMeshOf: (id: string) => DrawnMesh | null;
  /** Blows from outside, in the order in which they came. */
  readonly strikes: () => readonly Strike[];
}

/** A blow from outside: the step at whose start it falls, the place and the direction out of what is struck, and 1 for full strength. */
export interface Strike {
  readonly step: number;
  readonly at: readonly [number, number, number];
  readonly normal: readonly [number, number, number];
  readonly strength: number;
}
