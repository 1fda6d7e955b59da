import type { z } from 'zod';
import type * as shapes from './shapes.ts';

type Of<S extends z.ZodType> = Readonly<z.infer<S>>;

export type Role = z.infer<typeof shapes.role>;
export type Session = Of<typeof shapes.session>;
export type Members = Of<typeof shapes.members>;
export type ProjectSummary = Of<typeof shapes.projectSummary>;
export type ToneChoice = z.infer<typeof shapes.toneChoice>;
export type ProjectFile = Of<typeof shapes.projectFile>;
export type ProjectDetail = Of<typeof shapes.projectDetail>;
export type AssetSummary = Of<typeof shapes.assetSummary>;
export type EffectSummary = Of<typeof shapes.effectSummary>;
export type DiskUse = Of<typeof shapes.diskUse>;
export type Start = Of<typeof shapes.start>;
export type FoundIn = Of<typeof shapes.foundIn>;
export type EffectKin = Of<typeof shapes.effectKin>;
export type Following = Of<typeof shapes.following>;
export type Standing = Of<typeof shapes.standing>;
export type StoredEffect = Of<typeof shapes.storedEffect>;
export type Since = Of<typeof shapes.since>;
export type Revision = Of<typeof shapes.revision>;
export type KeptState = Of<typeof shapes.keptState>;
export type Deleted = Of<typeof shapes.deleted>;
export type ParcelClash = Of<typeof shapes.parcelClash>;
export type ParcelContents = Of<typeof shapes.parcelContents>;
export type ParcelFigure = Of<typeof shapes.parcelFigure>;
export type ParcelQuestion = Omit<Of<typeof shapes.parcelRefusal>, 'code'>;
export type ParcelChoices = Of<typeof shapes.parcelChoices>;
export type ParcelChoice = z.infer<typeof shapes.parcelChoice>;
export type TakenParcel = Of<typeof shapes.takenParcel>;
export type Present = Of<typeof shapes.present>;
export type News = Of<typeof shapes.news>;

/** An answer as the server has it before it is written as JSON: with instants as dates. */
export type Unsent<T> = T extends string
  ? T | Date
  : T extends readonly (infer U)[]
    ? readonly Unsent<U>[]
    : T extends object
      ? { readonly [K in keyof T]: Unsent<T[K]> }
      : T;
