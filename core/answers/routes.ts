import * as z from 'zod';
import * as shapes from './shapes.ts';
import { effectSchema } from '../document/index.ts';
import { attachmentsSchema, filmSettingsSchema } from '../formats/index.ts';

const madeEffect = z.object({ id: z.string(), revision: z.number().int() });
const named = z.object({ id: z.string(), name: z.string() });
const onlyDocument = z.object({ document: effectSchema });

/** What each route that answers with JSON answers. */
export const ANSWERS = {
  'GET /session': shapes.session,
  'POST /session': z.object({ name: z.string() }),
  'GET /projects': z.array(shapes.projectSummary),
  'POST /projects': named,
  'GET /projects/:id': shapes.projectDetail,
  'GET /projects/:id/members': shapes.members,
  'GET /projects/:id/tone': shapes.tone,
  'GET /projects/:id/search': z.array(shapes.foundIn),
  'GET /projects/:id/deleted': z.object({
    effects: z.array(shapes.deleted),
    assets: z.array(
      shapes.assetSummary
        .pick({ hash: true, name: true, kind: true })
        .extend({ deletedAt: shapes.deleted.shape.deletedAt }),
    ),
  }),
  'POST /projects/:id/effects': madeEffect,
  'POST /projects/:id/starts': madeEffect.extend({ name: z.string() }),
  'POST /projects/:id/kit': shapes.assetSummary,
  'POST /projects/:id/assets': shapes.assetSummary,
  'GET /projects/:id/parcel/contents': shapes.parcelContents,
  'POST /projects/:id/parcels': shapes.takenParcel,
  // Settings that another version kept, and that cannot be read, are null.
  'GET /projects/:id/presets': z.array(z.object({ name: z.string(), settings: filmSettingsSchema.nullable() })),
  'GET /effects/:id': shapes.storedEffect,
  'GET /effects/:id/attachments': attachmentsSchema,
  'POST /effects/:id/edits': shapes.since.extend({ following: shapes.following }),
  'GET /effects/:id/edits': shapes.since,
  'POST /effects/:id/siblings': named,
  'GET /effects/:id/revisions': z.array(shapes.revision),
  'GET /effects/:id/revisions/:revision': onlyDocument,
  'GET /effects/:id/tray': z.array(shapes.keptState),
  'POST /effects/:id/tray': z.object({ id: z.string() }),
  'GET /tray/:id': onlyDocument,
  'GET /deleted': z.array(shapes.deleted),
  'GET /starts': z.array(shapes.start),
  'GET /kit': z.array(z.string()),
} as const satisfies Readonly<Record<string, z.ZodType>>;

export type AnswerRoute = keyof typeof ANSWERS;
export type Answer<R extends AnswerRoute> = z.infer<(typeof ANSWERS)[R]>;

/** The route of a request, by its method and its path after `/api`; null where its answer has no shape. */
export function routeOf(method: string, path: string): AnswerRoute | null {
  const asked = `${method} ${path.replace(/\?.*$/, '')}`;
  const isMeant = (route: string) => new RegExp(`^${route.replace(/:\w+/g, '[^/]+')}$`).test(asked);
  return (Object.keys(ANSWERS) as AnswerRoute[]).find(isMeant) ?? null;
}

/** Reads what was answered; what it has beside is left out. @throws Error that says where it is not as it should be. */
export function readAnswer<R extends AnswerRoute>(route: R, answer: unknown): Answer<R> {
  const found = ANSWERS[route].safeParse(answer);
  if (found.success) return found.data as Answer<R>;
  const [{ path, message }] = found.error.issues as [z.core.$ZodIssue];
  throw new Error(`${path.length > 0 ? `at ${path.join('.')}: ` : ''}${message}`);
}
