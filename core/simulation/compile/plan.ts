import type { Burst, Effect, Layer, Lineage, Link, Place } from '../../document/index.ts';
import type { BirthWindow } from '../time/moments.ts';
import { Signals } from '../time/signals.ts';
import { type Numbers } from '../values/layerReaders.ts';
import { ColourReader } from '../values/colourReader.ts';
import type { Reading } from '../values/reading.ts';
import type { Around } from '../sources/around.ts';
import { Channels } from '../values/channels.ts';
import type { VectorReader } from '../values/vectorReader.ts';
import { RateIntegral } from '../values/rate.ts';
import type { GroupFrame } from '../scene/groups.ts';
import type { SourceReader } from '../sources/source.ts';
import { Launch } from '../sources/launch.ts';
import { FrontReader } from '../fronts/front.ts';
import type { LookPlan } from '../looks/plan.ts';
import type { MeetingSide } from '../../geometry/index.ts';
import { NumberReader } from '../values/numberReader.ts';
import type { ForceAction, ForcePhase } from '../forces/index.ts';
import type { Body } from '../surfaces/body.ts';
import { EffectClock } from '../time/clock.ts';
import { Scene } from '../scene/scene.ts';

/** A layer with everything looked up once: what a step reads. */
export interface CompiledLayer {
  readonly id: string;
  readonly layer: Layer;
  readonly group: GroupFrame;
  readonly numbers: Numbers;
  readonly colour: ColourReader;
  readonly channels: Channels;
  /** Which share of its range each dial stands at. */
  readonly dials: Reading['dials'];
  /** The numbers of its look. */
  readonly look: LookPlan;
  readonly turnsInLives: boolean;
  /** Whether the metres its particles travel are kept for what is shaped by them. */
  readonly keepsDistance: boolean;
  readonly source: SourceReader;
  readonly rate: RateIntegral;
  /** When its births may happen. */
  readonly window: BirthWindow;
  /** The share of its own births that the tier keeps, 0 to 1; 0: the tier has none of it. */
  readonly kept: number;
  /** When the effect's time begins. */
  readonly beginsAt: number;
  readonly bursts: readonly { readonly id: string; readonly item: Burst }[];
  /** When what bursts wait for comes. */
  readonly signals: Signals;
  readonly forces: readonly BoundForce[];
  /** The lifetime all its particles share, in seconds; null where they differ. */
  readonly life: number | null;
  readonly cap: number;
  readonly isOnGround: boolean;
  /** Share of its carrier's motion that particles go with, percent; null: none, as what lies on the ground. */
  readonly ride: NumberReader | null;
  readonly around: Around;
  readonly launch: Launch;
  /** Metres a second added at birth, along the axes of what particles are born on. */
  readonly velocityBeside: VectorReader;
  /** Whether particles keep the colour of where they were born. */
  readonly takesColour: boolean;
  /** Whether links may give its particles colours, or sizes, to begin with. */
  readonly isGivenColour: boolean;
  readonly isGivenSize: boolean;
  readonly links: readonly BoundLink[];
  /** The front that frees its particles. */
  readonly front: FrontReader | null;
  readonly holds: boolean;
  /** The beam that its particles are drawn as. */
  readonly beam: BoundBeam | null;
}

/** A trail, ready to be laid: metres, seconds and shares. */
export interface BoundTrail {
  /** The layer that is drawn as trails, and the one whose particles lay them. */
  readonly id: string;
  readonly heads: string;
  readonly every: NumberReader;
  /** Seconds between two points at most; 0: none by time. */
  readonly seconds: NumberReader;
  /** How many times as finely points are laid. */
  readonly fineness: number;
  readonly lasts: NumberReader;
  /** Percent. */
  readonly drift: NumberReader;
  readonly goesToo: boolean;
  /** Whether points move after they were laid. */
  readonly moves: boolean;
  readonly most: number;
  /** How the points are stepped. */
  readonly points: CompiledLayer;
}

/** What a beam needs beside its looks: its ends, and how fast it reaches out. */
export interface BoundBeam {
  readonly from: Place;
  readonly to: Place;
  /** Metres a second, as at the birth of each; 0: at once. */
  readonly speed: NumberReader;
}

/** A link with its settings looked up. */
export interface BoundLink {
  readonly on: Link['on'];
  /** The layer in which it sets off births. */
  readonly to: string;
  readonly salt: number;
  readonly once: boolean;
  readonly count: NumberReader;
  /** Shares. */
  readonly chance: NumberReader;
  readonly velocity: NumberReader;
  readonly colour: NumberReader;
  readonly size: NumberReader;
  readonly channels: NumberReader;
  /** Channels that both layers have: the id, and its number among those of the layer led to. */
  readonly both: readonly { readonly id: string; readonly n: number }[];
  /** Seconds. */
  readonly delay: NumberReader;
  readonly every: NumberReader;
  /** How often at most along the way; 0: without a limit. */
  readonly times: NumberReader;
  /** Whether what it sets off begins with the colour of its parent. */
  readonly takesColour: boolean;
}

/** On whom and where a force acts. */
export interface ForceWhere {
  readonly place: Place;
  /** The matrix of the groups it stands in. */
  readonly group: Float64Array | null;
  readonly reach: NumberReader | null;
  readonly falloff: number;
  /** Share of the particles, percent, and the slot that draws them. */
  readonly share: NumberReader;
  readonly shareSlot: string;
  /** m/s² below which it does not act. */
  readonly threshold: NumberReader | null;
}

/** A force as a layer's step writes it into its program. */
export interface BoundForce extends ForceAction {
  readonly each: readonly NumberReader[];
  readonly halving: readonly NumberReader[];
  readonly phase: ForcePhase;
  readonly where: ForceWhere;
}

export type SurfaceAct = 'bounce' | 'slide' | 'stick' | 'die' | 'keep';

/** A surface with everything looked up once. */
export interface BoundSurface {
  readonly id: string;
  /** The layers that meet it. */
  readonly layers: readonly string[];
  readonly act: SurfaceAct;
  readonly side: MeetingSide;
  readonly body: Body;
  /** Shares, per particle. */
  readonly bounce: NumberReader;
  readonly friction: NumberReader;
  readonly roughness: NumberReader;
  /** Draws where bounces scatter to. */
  readonly scatterSlot: number;
  /** Metres off it at which particles are kept. */
  readonly offset: number;
  /** Share of the particles that meet it, percent, and the slot that draws them. */
  readonly share: NumberReader;
  readonly shareSlot: number;
  /** Metres within which particles are kept on it; 0: at any distance. */
  readonly within: NumberReader;
  /** Both as they are in the step at hand: a share, 0 to 1, and metres. */
  readonly now: { share: number; within: number };
}

/** A document, ready to be stepped: a value that changes nothing by being made. */
export interface CompiledDocument {
  readonly effect: Effect;
  readonly scene: Scene;
  readonly clock: EffectClock;
  /** Which share of its range each dial stands at. */
  readonly dials: Readonly<Record<string, number>>;
  /** Layers with particles of their own. */
  /** By salt: no order on screen reaches what is computed. */
  readonly compiled: readonly CompiledLayer[];
  readonly trails: readonly BoundTrail[];
  readonly lineage: Lineage;
  /** By id, as the surfaces. */
  readonly fronts: readonly FrontReader[];
  readonly surfaces: readonly BoundSurface[];
}
