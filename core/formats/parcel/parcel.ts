import type { Effect } from '../../document/index.ts';
import type { AssetKind } from './manifest.ts';

/**
 * A parcel: one zip with effects, all they use as canonical bytes, and the same as PNG and GLB for other programs.
 * Described in docs/formats.md.
 */
export interface Parcel {
  /** What may be done with it, in words; empty where nobody said. */
  readonly licence: string;
  readonly effects: readonly ParcelEffect[];
  readonly assets: readonly ParcelAsset[];
}

export interface ParcelEffect {
  /** Its file in the parcel, which names it there. */
  readonly file: string;
  readonly effect: Effect;
  /** Its own, where it came with another than the parcel's. */
  readonly licence: string;
  /** The file of the effect that it keeps what it does not change of. */
  readonly siblingOf: string | null;
  /** The id by which other effects link it into themselves. */
  readonly linkedAs: string | null;
  /** A PNG. */
  readonly picture: Uint8Array | null;
}

export interface ParcelAsset {
  readonly hash: string;
  readonly name: string;
  readonly kind: AssetKind;
  readonly licence: string;
  readonly bytes: Uint8Array;
}

/** An asset as it came: with the file for other programs, where its parcel has one. */
export interface ReadAsset extends ParcelAsset {
  readonly open: { readonly file: string; readonly bytes: Uint8Array } | null;
}
export interface ReadParcel extends Parcel {
  readonly assets: readonly ReadAsset[];
}
