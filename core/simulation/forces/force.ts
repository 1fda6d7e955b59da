import type { Calls, Three, Value } from '../../kernels/index.ts';
import type { ForceHandle, GuideReader, GuideShape } from './guide.ts';
import type { ChoiceName, ForceTable, NumberName, VectorName } from './table.ts';

/** Where in a step a force acts: velocities beside their own, then accelerations and drags, then constraints. */
export type ForcePhase = 'velocity' | 'acceleration' | 'constraint';

/**
 * A kind of force: all there is to know about it but its kernel. The document, the interface and the simulation read this;
 * adding a kind touches its own folder, a kernel with its twin, and the list in kinds.ts.
 */
export interface ForceKindDefinition<S extends ForceTable = ForceTable> {
  /** What it is called. */
  readonly name: string;
  /** What people of the trade also call it. */
  readonly otherWords: readonly string[];
  readonly settings: S;
  readonly phase: ForcePhase;
  /**
   * What it does, in words: {name} is a setting, {@} its place; what is not in use is left out. `chosen` gives what a choice is
   * fixed at.
   */
  readonly sentence: string | ((chosen: (name: ChoiceName<S>) => string) => string);
  /** Choices whose plain value would not read as a part of the sentence: how they read, by setting and choice. */
  readonly choiceWords?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** What its place is for: always felt; its directions alone, but for the reach; the reach alone. */
  readonly place: 'always' | 'directions' | 'reach';
  /** Numbers without any of which it does nothing; an empty list: it always acts. */
  readonly strengths: readonly NumberName<S>[];
  /** False of what only slows: it sets nothing in motion that stands still. */
  readonly isMover: boolean;
  /** What mirroring exchanges left and right of: vectors are mirrored, numbers reversed. */
  readonly mirrored: readonly (NumberName<S> | VectorName<S>)[];
  /** What is drawn of it about its place. Without any, a cross shows where its reach is measured from. */
  guide?(of: GuideReader<S>): readonly GuideShape[];
  /** Whether that stands beside the effect, of what is felt everywhere alike, unless it has a reach. */
  readonly isDrawnAside?: boolean;
  /** Whether what is drawn is another at another instant, although nothing it is made of is shaped. */
  readonly isDrawnOverTime?: boolean;
  /** Numbers that are pulled on the stage, beside the reach. */
  readonly handles?: readonly ForceHandle<S>[];
  /** Looks its settings up once for a document. */
  bind(binding: ForceBinding<S>): ForceAction;
}

/** Checks a definition against its own settings; who reads any kind of force reads it by names that may be any. */
export function defineForce<const S extends ForceTable>(
  definition: ForceKindDefinition<S>,
): ForceKindDefinition & { readonly settings: S };
export function defineForce(definition: ForceKindDefinition): ForceKindDefinition {
  return definition;
}

/** A number setting as a force has bound it; a writer reads it. */
export interface ForceNumber {
  /** Whether neither shapers nor a spread make it vary; `low` is then its value. */
  readonly isConstant: boolean;
  readonly low: number;
}

/** A vector setting as a force has bound it; a writer reads it. */
export interface ForceVector {
  readonly isConstant: boolean;
}

/** A force's settings, as it is bound to a layer. */
export interface ForceBinding<S extends ForceTable = ForceTable> {
  readonly id: string;
  /** The seed of the effect. */
  readonly seed: number;
  /** A number as the layer's groups make it, and `times` as much. */
  number(name: NumberName<S>, times?: number): ForceNumber;
  vector(name: VectorName<S>): ForceVector;
  choice(name: ChoiceName<S>): string;
}

/** A force with its settings looked up. */
export interface ForceAction {
  /** Numbers that may differ from particle to particle. */
  readonly each: readonly ForceNumber[];
  /** Those among them that are times in which something halves. */
  readonly halving?: readonly ForceNumber[];
  /** Whether it fades softly whatever is chosen, as what has a place of its own for each particle. */
  readonly fadesSoftly?: boolean;
  /** Arrays it needs beside those of its numbers. */
  readonly arrays?: number;
  write(writer: ForceWriter): void;
}

/** What a force may draw each particle to by itself: the nearest spot of a thing's skin, or the spot it was born on. */
export type TargetKind = 'skin' | 'own spot';

/** Arrays that the places of one such force take: x, y and z. */
export const TARGET_ARRAYS = 3;

/** What a field that changes stands at: which change, the next, and how far toward it. */
export interface Changes {
  readonly now: number;
  readonly next: number;
  readonly share: number;
}

/**
 * What a force writes its share of a step's program with. It makes nothing anew in a step: what it hands out is its own, and
 * valid until the force has been written, a direction until the next one.
 */
export interface ForceWriter {
  /** The end of the step as fields take it (in a hold without a seam it comes again), and how long it is, in seconds. */
  readonly time: number;
  readonly seconds: number;
  readonly step: number;
  /** Where the force stands at the end of the step. */
  readonly at: Three;
  /** A direction of the place the force stands in, as one of the world, one metre long. */
  direction(local: ForceVector): Three;
  /** The three axes of that place. */
  axes(): readonly [Three, Three, Three];
  /** What a field that changes so many times a second stands at. */
  changes(perSecond: ForceNumber): Changes;
  /** How far what drifts by a vector, metres a second, has come. */
  drifted(speed: ForceVector): Three;
  /** What all particles share of a setting. */
  shared(number: ForceNumber): number;
  /** A distance within which a force weakens toward the very middle, squared (m²). */
  squared(number: ForceNumber): number;
  /** What a step takes of an excess that halves in a time of each particle's own: a share, 1 where that time is 0. */
  halving(seconds: ForceNumber): Value;
  /** A setting per particle at the step's start or end, weakened by the force's share, reach and falloff. */
  value(number: ForceNumber, when?: 'start' | 'end', sign?: 1 | -1): Value;
  /** A setting per particle, as it is. */
  plain(number: ForceNumber): Value;
  /** A place for each particle, as addresses of arrays. */
  targets(kind: TargetKind): Three;
  /** 1 / reach² for a call that fades softly by itself, so that `value` need not; 0 where there is no reach. */
  ownFade(): number;
  /** The calls of the kernels, a method each. */
  readonly calls: Calls;
  /** Tells that a call adds to the drag of each particle, so that the integrator works it out for each. */
  slowsEach(): void;
  /** Accelerates along a direction; what all particles share is summed beforehand, for the whole layer. */
  push(number: ForceNumber, way: Three): void;
  /** Slows; what all particles share is summed beforehand, and the integrator then works it out once for the layer. */
  drag(number: ForceNumber): void;
}
