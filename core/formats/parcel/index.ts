export * from './assetsOf.ts';
export * from './checkOpenFiles.ts';
export {
  assetKindSchema,
  licenceSchema,
  MOST_PARCEL_ASSETS,
  MOST_PARCEL_EFFECTS,
  type AssetKind,
} from './manifest.ts';
export type * from './parcel.ts';
export { parcelPage } from './parcelPage.ts';
export { checkAsset, readParcel } from './readParcel.ts';
export { MOST_PARCEL_UNPACKED, mustFitParcel } from './unpack.ts';
export { effectFile, parcelOf, plainName, writeParcel } from './writeParcel.ts';
