import * as z from '../zod/index.ts';
import { SCHEMA, type Effect } from '../document/index.ts';

// What the server answers, written once for it and for the page. What an answer has beside is left out.

const count = z.number().int().min(0);
/** An instant, as JSON writes it. */
const instant = z.string();

export const role = z.enum(['viewer', 'editor', 'owner']);
export const assetKind = z.enum(['rig', 'picture']);

export const session = z.object({ hasSignIn: z.boolean(), name: z.string().nullable() });
export const members = z.object({
  hasSignIn: z.boolean(),
  role,
  members: z.array(z.object({ id: z.string(), name: z.string(), role })),
});

export const assetSummary = z.object({
  hash: z.string(),
  name: z.string(),
  kind: assetKind,
  /** Of its canonical bytes. */
  bytes: count,
  /** What may be done with it, in words; empty where nobody said. */
  licence: z.string(),
  /** The file it was imported from, as it was called; null where that was not kept. */
  originalName: z.string().nullable(),
  hasThumbnail: z.boolean(),
});
export const effectSummary = z.object({
  id: z.string(),
  name: z.string(),
  revision: count,
  savedAt: instant,
  /** The revision its picture shows; null without one, and where the project’s tone curve changed since. */
  pictureRevision: count.nullable(),
  /** How many pictures of it were kept: 0 for none. It is a part of the last one's address. */
  pictures: count,
  /** The name of the effect it keeps what it does not change of; null without one. */
  siblingOf: z.string().nullable(),
});
export const projectSummary = z.object({
  id: z.string(),
  name: z.string(),
  /** How many effects it has, or how many of them match what is looked for. */
  effects: count,
  /** The effects that were saved last, the latest first. */
  recent: z.array(effectSummary),
});
/** The disk that a project and all of them take, and may take, in bytes. */
export const diskUse = z.object({ bytes: count, mostBytes: count, allBytes: count, mostAllBytes: count });
/** How the light of a picture becomes what a screen shows: clipped, by one of two curves, or by a table of the game. */
export const toneChoice = z.enum(['none', 'neutral', 'filmic', 'table']);
/** The tone curve of a project, with the text of its table where it is one. */
export const tone = z.union([
  z.object({ kind: z.enum(['none', 'neutral', 'filmic']) }),
  z.object({ kind: z.literal('table'), text: z.string() }),
]);
export const projectFile = z.object({
  purpose: z.enum(['reference', 'tone']),
  name: z.string(),
  type: z.string(),
  bytes: count,
});
export const projectDetail = z.object({
  id: z.string(),
  name: z.string(),
  livingBudget: count,
  licence: z.string(),
  tone: toneChoice,
  files: z.array(projectFile),
  effects: z.array(effectSummary),
  assets: z.array(assetSummary),
  disk: diskUse,
});

/** An effect to begin with, by what it is for. */
export const start = z.object({
  id: z.string(),
  intent: z.string(),
  about: z.string(),
  /** How many instants stand side by side in its picture, and which is seen while it does not play. */
  instants: count,
  rest: count,
});
/** Where a word was found in one effect. */
export const foundIn = z.object({
  id: z.string(),
  name: z.string(),
  lines: z.array(z.object({ id: z.string(), heading: z.string(), name: z.string(), value: z.string() })),
  more: count,
});

/** An effect that another hangs together with. */
export const effectKin = z.object({ id: z.string(), name: z.string() });
/**
 * How far the effects that follow one have come: those that have yet to take its changes, and those that could not, and
 * why. It arrives by answers and by the socket, in either order: of two, the one with the greater `at` was read later.
 */
export const following = z.object({
  at: count,
  waiting: count,
  failed: z.array(z.object({ name: z.string(), sentence: z.string() })),
});
/** Where an effect stands: its revision, and the id of the edit that made it. */
export const standing = z.object({ revision: count, head: z.string() });
/**
 * An effect as the server reads it before it answers: it was checked there as a whole. To check it here again would take a tenth
 * of a second before there is a picture.
 */
const checkedEffect = z.custom<Effect>(
  (given) => typeof given === 'object' && given !== null && 'schema' in given && given.schema === SCHEMA,
  'this is no effect of this version',
);
export const storedEffect = standing.extend({
  id: z.string(),
  projectId: z.string(),
  /** How many particles may live at once in its project. */
  livingBudget: count,
  document: checkedEffect,
  siblingOf: effectKin.nullable(),
  siblings: z.array(effectKin),
  following,
});

export const change = z.object({
  path: z.array(z.string()).readonly(),
  before: z.unknown().optional(),
  after: z.unknown().optional(),
});
/** What others changed of an effect since a revision, who, and what they did, in words. */
export const since = standing.extend({
  theirs: z.array(change),
  by: z.array(z.string()),
  labels: z.array(z.string()),
});
/** An effect as it was at a revision, or is. */
export const revision = z.object({
  revision: count,
  savedAt: instant,
  /** Who made it, where people sign in. */
  by: z.string(),
  name: z.string().nullable(),
  /** What was done since the revision before it in the list, in words, the latest last. */
  labels: z.array(z.string()),
});
/** A state of an effect that was put by, and the instant it was kept at, on the time sheet. */
export const keptState = z.object({
  id: z.string(),
  name: z.string(),
  keptAt: instant,
  by: z.string(),
  seconds: z.number(),
  hasPicture: z.boolean(),
});
/** Something that was deleted and can be brought back. */
export const deleted = z.object({ id: z.string(), name: z.string(), deletedAt: instant });

/** What a parcel of some effects would hold. */
export const parcelContents = z.object({
  licence: z.string(),
  effects: z.array(
    z.object({ id: z.string(), name: z.string(), licence: z.string(), siblingOf: z.string().nullable() }),
  ),
  assets: z.array(assetSummary),
  /** What the project does not have, and which effect uses it: no parcel is made without. */
  missing: z.array(z.object({ effect: z.string(), what: z.string() })),
});

/** Something of a parcel that has the name of something else in the project: an asset by its hash, an effect by its file. */
export const parcelClash = z.object({
  of: z.string(),
  kind: z.enum(['effect', ...assetKind.options]),
  name: z.string(),
});
/** The bone of another figure that takes the place of one, and what it was found by: the artist, its name, its place. */
export const boneMatch = z.object({
  bone: z.string(),
  to: z.string(),
  by: z.enum(['kept', 'name', 'likeness', 'place']),
});
/** A figure that came in a parcel, and figures of the project that its effects may be put on. */
export const parcelFigure = z.object({
  hash: z.string(),
  name: z.string(),
  others: z.array(
    z.object({ hash: z.string(), name: z.string(), bones: z.array(z.string()), matches: z.array(boneMatch) }),
  ),
});
/** A parcel that is refused until it is chosen what to do with each. */
export const parcelRefusal = z.object({
  code: z.literal('parcel-question'),
  clashes: z.array(parcelClash),
  figures: z.array(parcelFigure),
});
/** What to do with a clash: keep both, write the project's effect over, or use the asset that the project has. */
export const parcelChoice = z.enum(['both', 'over', 'present']);
/** What was chosen: of clashes, and for each figure that of the project it is put on, or "own". */
export const parcelChoices = z.strictObject({
  clashes: z.record(z.string().max(80), parcelChoice),
  figures: z.record(z.string().max(64), z.string().max(64)),
});
/** What came of a parcel; one that the project had already, with all it uses, changes nothing. */
export const takenParcel = z.object({
  effects: z.array(z.object({ id: z.string(), name: z.string(), isKnown: z.boolean() })),
  isKnown: z.boolean(),
});

/** Somebody who has an effect open: a window of theirs, and their name where people sign in. */
export const present = z.object({ window: z.string(), name: z.string() });
/** What is told to those who have an effect open. */
export const news = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('people'), others: z.array(present) }),
  z.object({ kind: z.literal('edit'), revision: count }),
  following.extend({ kind: z.literal('following') }),
]);
