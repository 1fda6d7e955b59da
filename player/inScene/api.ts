import type { DepthTexture, Object3D, PerspectiveCamera, Texture } from 'three';
import type { Loaded, Playing, Quality } from '../api.ts';

export interface SceneOptions {
  /** The tier that effects are played in at best; "high" unless told. Further away they may go to lower ones. */
  readonly quality?: Quality;
  /** How many of the effects' lights fall on what else is in the scene: up to 8; 4 unless told. */
  readonly lights?: number;
}

/** Effects in a three.js scene of the page's own. */
export interface SceneEffects {
  /** What is put into the scene, once, for all effects. It stands in the world, wherever it hangs. */
  readonly object: Object3D;
  /** Reads a parcel: its bytes, or where they are fetched from. @throws an error with a sentence that says what is wrong. */
  load(parcel: string | URL | Blob | ArrayBuffer | Uint8Array): Promise<Loaded>;
  /** Lets an effect go wherever an object of the scene goes; with null, it stays where it is. */
  follow(playing: Playing, object: Object3D | null): void;
  /** Moves all to the present instant, as that camera sees it: call it before each picture. */
  update(camera: PerspectiveCamera): void;
  /**
   * Hands in how deep the scene is without effects: drawn from that camera, as large as what effects are drawn into. Then
   * soft particles fade where they meet what is solid, and marks wrap it. Null: it is not known.
   */
  setDepth(depth: DepthTexture | null, camera: PerspectiveCamera): void;
  /** Hands in a copy of the picture without effects, linear, as large as what they are drawn into: then haze bends it. */
  setBehind(picture: Texture | null): void;
  pause(): void;
  resume(): void;
  setSpeed(speed: number): void;
  /** Plays in another tier from the next step on; what was born stays. */
  setQuality(quality: Quality): void;
  /** Whether it computes in shared memory, with a second thread. */
  readonly isShared: boolean;
  /** Hears of faults that end all playing. */
  onFault(hear: (sentence: string) => void): void;
  dispose(): void;
}
