import * as z from '../zod/index.ts';
import * as shapes from './shapes.ts';
import type { WITH_DOCUMENTS } from './withDocuments.ts';

const madeEffect = z.object({ id: z.string(), revision: z.number().int() });
const named = z.object({ id: z.string(), name: z.string() });

const WITHOUT_DOCUMENTS = {
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
  'GET /effects/:id': shapes.storedEffect,
  'POST /effects/:id/edits': shapes.since.extend({ following: shapes.following }),
  'GET /effects/:id/edits': shapes.since,
  'POST /effects/:id/siblings': named,
  'GET /effects/:id/revisions': z.array(shapes.revision),
  'GET /effects/:id/tray': z.array(shapes.keptState),
  'POST /effects/:id/tray': z.object({ id: z.string() }),
  'GET /deleted': z.array(shapes.deleted),
  'GET /starts': z.array(shapes.start),
  'GET /kit': z.array(z.string()),
} as const satisfies Readonly<Record<string, z.ZodType>>;

/** What each route that answers with JSON answers. What few pages need is loaded when it is first asked for. */
export type Answers = typeof WITHOUT_DOCUMENTS & typeof WITH_DOCUMENTS;
const withDocuments = (): Promise<Readonly<Record<string, z.ZodType>>> =>
  import('./withDocuments.ts').then((loaded) => loaded.WITH_DOCUMENTS);

export type AnswerRoute = keyof Answers;
export type Answer<R extends AnswerRoute> = z.infer<Answers[R]>;

/** The routes whose answers have a shape. */
export const answerRoutes = async (): Promise<readonly AnswerRoute[]> =>
  [...Object.keys(WITHOUT_DOCUMENTS), ...Object.keys(await withDocuments())] as AnswerRoute[];

/** The route of a request, by its method and its path after `/api`; null where its answer has no shape. */
export async function routeOf(method: string, path: string): Promise<AnswerRoute | null> {
  const asked = `${method} ${path.replace(/\?.*$/, '')}`;
  const isMeant = (route: string) => new RegExp(`^${route.replace(/:\w+/g, '[^/]+')}$`).test(asked);
  return (await answerRoutes()).find(isMeant) ?? null;
}

/**
 * Reads what was answered; what it has beside is left out. @throws Error that says where it is not as it should be, or that a
 * part of Jinx could not be loaded.
 */
export async function readAnswer<R extends AnswerRoute>(route: R, answer: unknown): Promise<Answer<R>> {
  const shape = (WITHOUT_DOCUMENTS as Readonly<Record<string, z.ZodType>>)[route] ?? (await withDocuments())[route]!;
  const found = shape.safeParse(answer);
  if (found.success) return found.data as Answer<R>;
  const [{ path, message }] = found.error.issues as [z.core.$ZodIssue];
  throw new Error(`${path.length > 0 ? `at ${path.join('.')}: ` : ''}${message}`);
}
