import type { RigMesh, Texture } from '@jinx/core/geometry';
import type { StepKind, Surround } from '@jinx/core/document';
import type { OwnFrames, ValuePlace } from '@jinx/core/simulation';

/** A step of a look, with all that its shader is made from. */
export interface DrawnStep {
  readonly id: string;
  readonly kind: StepKind;
  readonly choices: Readonly<Record<string, string | boolean>>;
  /** Linear. */
  readonly colours: Readonly<Record<string, readonly [number, number, number]>>;
  /** The hash of the picture it shows; null without one. */
  readonly picture: string | null;
  /** Whether its colour stands among the numbers of a frame. */
  readonly isColourRead: boolean;
  /** Stops of its gradient, from 0 to 1, linear. */
  readonly stops: readonly {
    readonly at: number;
    readonly rgb: readonly [number, number, number];
    readonly opacity: number;
  }[];
}

/** A layer's look: its steps that act, and where their numbers stand in a frame. */
export interface DrawnLook {
  /** Which frames it is for: LAYER_PLAN. */
  readonly plan: number;
  readonly ownWords: number;
  readonly places: Readonly<Record<string, ValuePlace>>;
  readonly steps: readonly DrawnStep[];
}

export type Blend = 'additive' | 'normal' | 'mixed' | 'multiply' | 'solid' | 'holes';

/** How a layer's ribbons lie. */
export interface DrawnRibbon {
  readonly form: 'flat' | 'crossed' | 'tube';
  /** Whether its look begins anew again and again; else it lies along it once. */
  readonly isTiled: boolean;
}

/** How one layer is drawn: what the stage must know beside the frame. */
export interface DrawnLayer {
  readonly salt: number;
  /** Which document of a world it is of, as its frames number them (`LAYER_LOOKS`); 0 where this is left out. */
  readonly looks?: number;
  readonly isVisible: boolean;
  readonly facing: 'camera' | 'upright' | 'motion' | 'ground' | 'own frame';
  /** How sprites stand in their own frames. */
  readonly frames: OwnFrames;
  /** Whether its sprites are turned from where they are going rather than from upright. */
  readonly isAligned: boolean;
  readonly blend: Blend;
  /** Which of its particles are drawn in front of the others; `none` draws them as they lie in the frame. */
  readonly order: 'newest' | 'oldest' | 'nearest' | 'none';
  readonly depth: 'as placed' | 'never hidden' | 'only where hidden';
  readonly lit: 'unlit' | 'card' | 'ball';
  /** Whether it lies on whatever is under it. */
  readonly wraps: boolean;
  /** Drawn only where the layer of that salt covers the picture. */
  readonly inside: number | null;
  readonly look: DrawnLook;
  readonly drawn: DrawnAs;
}

/** One of the meshes a layer's particles are drawn as. */
export interface DrawnMesh {
  /** The hash of its rig. */
  readonly asset: string;
  /** How likely it is beside the others. */
  readonly chance: number;
}

/** How a layer's particles are drawn as meshes. */
export interface DrawnMeshes {
  readonly meshes: readonly DrawnMesh[];
  /** Looks of parts by name; all others have the layer's. */
  readonly parts: Readonly<Record<string, DrawnLook>>;
  readonly hasOwnColours: boolean;
  readonly hasShadow: boolean;
  /** The slot of the draw that chooses a mesh for each. */
  readonly slot: number;
}

/** How a layer bends what is behind it. */
export interface DrawnHaze {
  readonly bends: 'outward' | 'in waves' | 'by a picture';
  readonly picture: string | null;
}

/** A layer that is drawn on the skin of a figure. */
export interface DrawnBody {
  /** Which of its own instance's figures. */
  readonly figure: number;
  readonly isInPlace: boolean;
  /** Which of a frame's fronts cuts it; null for none. */
  readonly front: number | null;
  readonly edgeColour: readonly [number, number, number];
}

/** How figures are there: drawn, only hiding what is behind them, or not at all. */
export type FigureMode = 'drawn' | 'hides' | 'none';

/** What a layer's particles are drawn as. */
export type DrawnAs =
  | { readonly kind: 'sprite' }
  | ({ readonly kind: 'ribbon' } & DrawnRibbon)
  | ({ readonly kind: 'mesh' } & DrawnMeshes)
  /** `most`: lights that each instance of its effect has at once. */
  | { readonly kind: 'light'; readonly most: number }
  | ({ readonly kind: 'haze' } & DrawnHaze)
  | ({ readonly kind: 'body' } & DrawnBody);

/** A mesh that particles are drawn as. */
export interface StageMesh {
  readonly hash: string;
  readonly mesh: RigMesh;
  readonly texture: Texture | null;
}

/** A picture that looks show: canonical pixels, by the hash of their asset. */
export interface StagePicture {
  readonly hash: string;
  readonly texture: Texture;
}

/** What the picture goes through. */
export interface StageLens {
  /** Percent; percent of the picture's height. Null: none. */
  readonly bloom: { readonly strength: number; readonly spread: number } | null;
  /** Doublings of the light. */
  readonly exposure: number;
  /** How much darker the work is shown, 0 to 1: for what is too bright to work on. */
  readonly dim: number;
}

/** Fog; null colour is that of the horizon. Density is lost a metre, 0 to 1, at the ground. */
export interface StageFog {
  readonly density: number;
  readonly height: number;
  readonly colour: readonly [number, number, number] | null;
}

/** How the light of a picture becomes what a screen shows: clipped, by a curve, or by a table. */
export type StageTone =
  | { readonly kind: 'none' | 'neutral' | 'filmic' }
  | { readonly kind: 'table'; /** As `readToneTable` of core reads it. */ readonly text: string };

/** A light of the artist's own: metres; linear colour; how bright it is half a metre away, beside a clear sky. */
export interface StageLight {
  readonly at: readonly [number, number, number];
  readonly colour: readonly [number, number, number];
  readonly strength: number;
  readonly reach: number;
}

/** What shining things mirror in place of the surround's sky: a picture of all directions, and how it is held. */
export interface StageSurroundings {
  /** The hash of the picture. */
  readonly picture: string;
  readonly brightness: number;
  /** Radians round the vertical. */
  readonly turn: number;
}

/** Line segments that explain a source or a force; they hang on one of a frame's matrices, or stand in the world. */
export interface Guide {
  /** Number of the matrix: a bone, a thing's feet, the effect's own frame; −1 for the world. */
  readonly matrix: number;
  /** Pairs of points, three numbers each. */
  readonly points: Float32Array;
  readonly tone: 'source' | 'force' | 'surface' | 'faint';
}

/**
 * What the stage shows: the picture, or something in its place: its grey values; what is covered, as the game sees it; or
 * every particle in a tone that tells it from the others, its age, its speed or its layer.
 */
export type StageView = 'picture' | 'grey' | 'silhouette' | 'particle' | 'age' | 'speed' | 'layer' | Mark;
/**
 * Views for other programs: numbers rather than tones. How far away what is seen is, which it is, how far air bends it, how
 * far it moves, which way it faces.
 */
export type Mark = 'distance' | 'identity' | 'bend' | 'motion' | 'normal';

export interface StageFigure {
  readonly mesh: RigMesh;
  readonly texture: Texture | null;
  readonly inverseBind: Float32Array;
  /** Where its bones begin among a frame's matrices; its feet follow them. */
  readonly boneStart: number;
}

/** Where the matrices that the page asked for stand in the picture last drawn, and how far the camera has gone along. */
export interface Tracked {
  /** Sixteen numbers each, in the order they were asked for; all zero for one that the frame does not have. */
  readonly matrices: Float32Array;
  readonly followed: readonly [x: number, z: number];
}

/** One particle as it is at an age: what its look reads of it. */
export interface ParticleSample {
  readonly age: number;
  readonly seconds: number;
  /** Linear colour times intensity, and opacity 0 to 1. */
  readonly colour: readonly [number, number, number, number];
  /** Numbers of its look that differ between particles, as they are laid out in a frame. */
  readonly own: readonly number[];
}

/** Particles of the layer of a salt, as its look has made them after one of its steps, or, with null, after its last. */
export interface ParticlePicturesAsked {
  readonly salt: number;
  readonly step: string | null;
  readonly samples: readonly ParticleSample[];
  /** Pixels of the side of a picture: they lie side by side. */
  readonly size: number;
}

/** What a pixel holds before the lens: linear red, green, blue, and how much it covers. */
export type PixelColour = readonly [red: number, green: number, blue: number, opacity: number];

/** What a layer does to a pixel: how it is before it is drawn, and after. */
export interface PixelLayer {
  readonly salt: number;
  readonly before: PixelColour;
  readonly after: PixelColour;
  /** Which of the layer's particles in the frame are seen there, as they are drawn; null where they are not drawn apart. */
  readonly particles: readonly number[] | null;
  /** Whether those are all. */
  readonly isAll: boolean;
}

/** A pixel without any layer, and what each layer does to it, from back to front. */
export interface ProbedPixel {
  readonly base: PixelColour;
  readonly layers: readonly PixelLayer[];
}

/** A box of the world that holds particles with their sizes, metres. */
export interface Extent {
  readonly low: readonly [x: number, y: number, z: number];
  readonly high: readonly [x: number, y: number, z: number];
}

/** What a layer alone gives to a pixel after a step of its look. */
export interface PixelStep {
  readonly step: string;
  readonly colour: PixelColour;
}

/** What the page tells a scene of the stage. */
export type ToStage =
  /** Without a canvas it is drawn only when a picture of it is asked for. */
  | { kind: 'start'; canvas: OffscreenCanvas | null; width: number; height: number }
  | { kind: 'size'; width: number; height: number }
  | { kind: 'camera'; position: number[]; target: number[]; fieldOfView: number; follows: boolean }
  | { kind: 'frames'; buffer: ArrayBufferLike; address: number; bytes: number }
  /** The camera goes with the figure of that number, if it goes with any. */
  | { kind: 'figures'; figures: StageFigure[]; followed: number }
  /** Figures of those numbers are not drawn. */
  | { kind: 'hiddenFigures'; hidden: number[] }
  | { kind: 'pictures'; pictures: StagePicture[] }
  | { kind: 'meshes'; meshes: StageMesh[] }
  | { kind: 'lens'; lens: StageLens }
  | { kind: 'air'; fog: StageFog | null; mirrored: StageSurroundings | null }
  /** From front to back. */
  | { kind: 'layers'; layers: DrawnLayer[] }
  | { kind: 'guides'; guides: Guide[]; isShown: boolean }
  | { kind: 'surround'; surround: Surround }
  | { kind: 'tone'; tone: StageTone }
  | { kind: 'ownLights'; lights: StageLight[] }
  /** All that belongs to the edit of that number has been told. */
  | { kind: 'edited'; edit: number }
  | { kind: 'view'; view: StageView }
  /** A frame of another instant, whose silhouette is laid over the present one; `share` is where along the effect it lies. */
  | { kind: 'instant'; buffer: ArrayBuffer; share: number }
  | { kind: 'forgetInstants' }
  /** Which of a frame's matrices the page wants to hear of as they are drawn. */
  | { kind: 'track'; matrices: number[] }
  | { kind: 'figureMode'; mode: FigureMode }
  /** Nothing but the effect, and figures as they are there, over nothing; the ground may hide what is below it. */
  | { kind: 'cutOut'; isOn: boolean; groundHides: boolean }
  | { kind: 'pace'; isPlaying: boolean; stepsPerSecond: number }
  | { kind: 'pixels'; id: number; width: number; height: number }
  /** A picture of that size: of the present frame, or of another instant. */
  | {
      kind: 'picture';
      id: number;
      width: number;
      height: number;
      instant: { buffer: ArrayBuffer } | null;
    }
  | ({ kind: 'particlePictures'; id: number } & ParticlePicturesAsked)
  /** Particles of the layers of those salts that have an age are lit, and all else is dimmed; none ends that. */
  | { kind: 'lightAge'; salts: number[]; age: number }
  /** All but the layers of those salts are dimmed; none ends that. */
  | { kind: 'dimOthers'; salts: number[] }
  /** Draws the present picture `times` over, each to its end. */
  | { kind: 'time'; id: number; times: number }
  /** What made a pixel: a place of the canvas, 0 to 1 from its left and its top. */
  | { kind: 'pixel'; id: number; x: number; y: number }
  /** Which layers are seen at such a place. */
  | { kind: 'seenAt'; id: number; x: number; y: number }
  /** How far the particles of the layers of those salts reach. */
  | { kind: 'extent'; id: number; salts: number[] }
  /** What one layer gives to it, step by step of its look. */
  | { kind: 'pixelSteps'; id: number; x: number; y: number; salt: number };

/** What changes a scene, and asks nothing. */
export type StageOrder = Exclude<ToStage, { kind: 'start' } | { id: number }>;

/** A question to a scene. */
export type StageQuestion = Extract<ToStage, { id: number }>;

/** What a scene tells the page. */
export type FromStage =
  | { kind: 'drawn'; step: number; drawMilliseconds: number; drawn: number }
  /** The edit of that number is drawn, at that time of the system's clock. */
  | { kind: 'shown'; edit: number; at: number }
  | ({ kind: 'tracked' } & Tracked)
  | { kind: 'pixels'; id: number; width: number; height: number; rgba: Uint8Array }
  | { kind: 'picture'; id: number; bitmap: ImageBitmap }
  /** Null where there was nothing to draw. */
  | { kind: 'particlePictures'; id: number; bitmap: ImageBitmap | null }
  | { kind: 'time'; id: number; milliseconds: number[] }
  /** Null where nothing is drawn yet. */
  | { kind: 'pixel'; id: number; pixel: ProbedPixel | null }
  /** From the one that is seen most to those that something else hides. */
  | { kind: 'seenAt'; id: number; salts: readonly number[] }
  /** Null where none lives. */
  | { kind: 'extent'; id: number; extent: Extent | null }
  | { kind: 'pixelSteps'; id: number; steps: readonly PixelStep[] | null }
  /** The graphics card's picture was taken away, or is back. */
  | { kind: 'lost'; isLost: boolean }
  /** A question that cannot be answered. */
  | { kind: 'refused'; id: number; sentence: string }
  | { kind: 'failed'; sentence: string };

/**
 * What the page tells the stage's worker. Its scenes are drawn with the graphics of one canvas: that of the main scene, or,
 * where no scene is opened as the main one, a canvas that nobody sees.
 */
export type ToStageWorker =
  | { kind: 'open'; scene: number; isMain: boolean }
  | { kind: 'close'; scene: number }
  | { kind: 'tell'; scene: number; order: ToStage };

/** What the stage's worker tells the page: what a scene has to say. */
export interface FromStageWorker {
  readonly scene: number;
  readonly message: FromStage;
}
