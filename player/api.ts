/** Three numbers: metres of the world (Y up), or degrees round X, then Y, then Z. */
export type Triple = readonly [x: number, y: number, z: number];

/** What an effect is seen in front of; "none" is black, without ground. */
export type Surround = 'night' | 'dusk' | 'overcast' | 'noon' | 'busy' | 'bare';

/** Where it is seen from: metres, and degrees from the top of the picture to its bottom. */
export interface CameraView {
  readonly position: Triple;
  readonly target: Triple;
  readonly fieldOfView: number;
  /** Whether it goes along with the first figure, as that walks; it stands, unless told. */
  readonly follows?: boolean;
}

/** How much of an effect is computed and drawn: what each tier leaves out is said in its document. */
export type Quality = 'low' | 'middle' | 'high';

export interface PlayerOptions {
  /** The tier that effects are played in at best; "high" unless told. Further away they may go to lower ones. */
  readonly quality?: Quality;
  /** What is behind; that of the first effect unless told. */
  readonly surround?: Surround;
  /** Whether figures of the effects' stages are drawn; they are, unless told. */
  readonly figures?: boolean;
  /** Whether it stands while the canvas is out of sight; it does, unless told. */
  readonly pausesOffScreen?: boolean;
  /** Points of the picture for each pixel of the page; the screen's own, up to 2, unless told. */
  readonly pixelRatio?: number;
  /** Whether dragging and the wheel move the camera; they do, unless told. */
  readonly orbits?: boolean;
}

/** A value that an effect brings out under a name. */
export type DialInfo =
  | {
      readonly kind: 'number';
      readonly name: string;
      readonly least: number;
      readonly most: number;
      readonly value: number;
    }
  | { readonly kind: 'switch'; readonly name: string; readonly value: boolean }
  | { readonly kind: 'place' | 'direction'; readonly name: string; readonly value: Triple };

export type DialValue = number | boolean | Triple;

/** What a parcel says of one of its effects. */
export interface EffectInfo {
  readonly name: string;
  readonly licence: string;
  /** Seconds of its three stretches. The hold repeats until it is let go; "none" plays once. */
  readonly opening: number;
  readonly hold: { readonly kind: 'none' | 'continuing' | 'seamless'; readonly seconds: number };
  readonly closing: number;
  readonly dials: readonly DialInfo[];
  /** Moments that it listens to. */
  readonly signals: readonly string[];
  /** The camera that it was made with, if it keeps one. */
  readonly camera: CameraView | null;
}

export interface PlayOptions {
  /** Where it stands, and how it is turned. */
  readonly at?: Triple;
  readonly turn?: Triple;
  /** Where its random draws begin; its own unless told. */
  readonly seed?: number;
  readonly dials?: Readonly<Record<string, DialValue>>;
  /** Begins anew when it has ended. */
  readonly repeats?: boolean;
}

/** How a playing effect stands. */
export interface PlayingState {
  /** Steps of a sixtieth of a second since it began. */
  readonly step: number;
  readonly seconds: number;
  readonly living: number;
  readonly isLetGo: boolean;
  /** The tier it is played in where it stands; "none": it is too far away to be seen. */
  readonly quality: Quality | 'none';
  /** Whether it is left out of the picture, since the camera does not look at it or it is too far away. */
  readonly isCulled: boolean;
  readonly hasEnded: boolean;
}

export interface PlayingEvents {
  /** Something of it is seen for the first time. */
  firstLight: { readonly seconds: number };
  /** Particles of it struck something, in one step. */
  hit: {
    readonly seconds: number;
    readonly layer: string;
    readonly count: number;
    readonly at: Triple;
    readonly strength: number;
  };
  /** It has ended, and nothing of it lives. */
  ended: { readonly seconds: number };
}

/** An effect that plays: one instance of it. */
export interface Playing {
  readonly info: EffectInfo;
  /** Ends its hold: it closes. */
  letGo(): void;
  /**
   * Goes to an instant, seconds since it began.
   * @param letGoAt when it is let go: at another instant, or with null not at all; as it was unless told.
   */
  seek(seconds: number, letGoAt?: number | null): void;
  /** @throws an error where it has no such dial, or the value is not one of its kind. */
  setDial(name: string, value: DialValue): void;
  /** Announces a moment that it listens to. @throws an error where it listens to no such. */
  signal(name: string): void;
  /** Strikes it from one place of the world toward another. */
  strike(from: Triple, to: Triple, strength?: number): void;
  /** Puts it elsewhere: it goes there within one step. */
  place(at: Triple, turn?: Triple): void;
  /** Takes it away at once. */
  stop(): void;
  state(): Promise<PlayingState>;
  /** A fingerprint of all that is computed: equal wherever the same is played. Null while a change settles. */
  hash(): Promise<string | null>;
  on<K extends keyof PlayingEvents>(event: K, hear: (told: PlayingEvents[K]) => void): () => void;
}

/** A parcel that was read. */
export interface Loaded {
  readonly licence: string;
  readonly effects: readonly EffectInfo[];
  /** Begins an effect of it, the first unless told. */
  play(effect?: number | string, options?: PlayOptions): Playing;
}

export interface Player {
  /** Reads a parcel: its bytes, or where they are fetched from. @throws an error with a sentence that says what is wrong. */
  load(parcel: string | URL | Blob | ArrayBuffer | Uint8Array): Promise<Loaded>;
  /** Lets all stand, and go on. */
  pause(): void;
  resume(): void;
  /** How fast time runs; 1 is as it was made. */
  setSpeed(speed: number): void;
  setSurround(surround: Surround): void;
  /** Plays in another tier from the next step on; what was born stays. */
  setQuality(quality: Quality): void;
  setCamera(camera: CameraView): void;
  /** The present picture: four bytes a pixel, rows from the top. */
  pixels(width: number, height: number): Promise<Uint8ClampedArray>;
  /** Whether it computes in shared memory, with a second thread. */
  readonly isShared: boolean;
  /** Hears of faults that end all playing. */
  onFault(hear: (sentence: string) => void): void;
  dispose(): void;
}
