import {
  readAnswer,
  type Answer,
  type AnswerRoute,
  type ParcelChoices,
  type ProjectFile,
  type Role,
  type Standing,
  type ToneChoice,
} from '@jinx/core/answers';
import type { Edit, Effect } from '@jinx/core/document';
import type { FilmSettings } from '@jinx/core/formats';
import { Cancelled, sendFile, type Watch } from './uploads/sending';

export type {
  AssetSummary,
  Deleted,
  DiskUse,
  EffectKin,
  EffectSummary,
  Following,
  FoundIn,
  KeptState,
  Members,
  ParcelChoice,
  ParcelChoices,
  ParcelClash,
  ParcelContents,
  ParcelFigure,
  ParcelQuestion,
  Present,
  ProjectDetail,
  ProjectFile,
  ProjectSummary,
  Revision,
  Role,
  Since,
  Standing,
  Start,
  StoredEffect,
  ToneChoice,
} from '@jinx/core/answers';

/** The server's disk, or the project's share of it, is full. */
const NO_ROOM = 507;

/** An answer from the server that is not what was asked for. */
export class ApiError extends Error {
  readonly status: number;
  readonly body: Record<string, unknown>;
  constructor(status: number, sentence: string, body: Record<string, unknown> = {}) {
    super(sentence);
    this.status = status;
    this.body = body;
  }
  /** True when no answer came at all. */
  get isOffline(): boolean {
    return this.status === 0;
  }
  /** True when the same would be refused again: it is of no use to send it once more as it is. */
  get isFinal(): boolean {
    const mayPass = [401, 408, 429];
    return this.status === NO_ROOM || (this.status > 0 && this.status < 500 && !mayPass.includes(this.status));
  }
}

let signedOut = (): void => undefined;
/** Hears that one must sign in first. */
export const onSignedOut = (hear: () => void): void => void (signedOut = hear);

async function ask(
  method: string,
  path: string,
  body?: BodyInit,
  headers: Record<string, string> = {},
  watch?: Watch,
): Promise<Response> {
  let answer: Response;
  try {
    answer =
      watch && body instanceof Blob
        ? await sendFile(method, `/api${path}`, body, watch)
        : await fetch(`/api${path}`, { method, body, headers });
  } catch (error) {
    if (error instanceof Cancelled) throw error;
    throw new ApiError(0, 'The server does not answer: is Jinx still running?');
  }
  if (answer.ok) return answer;
  if (answer.status === 401) signedOut();
  const problem = (await answer.json().catch(() => ({}))) as Record<string, unknown>;
  throw new ApiError(answer.status, String(problem['sentence'] ?? `The server answered ${answer.status}.`), problem);
}

const JSON_BODY = { 'Content-Type': 'application/json' };

type Sent = [body?: BodyInit, headers?: Record<string, string>];
/** A body as it is sent, if there is one, with what says that it is JSON. */
const written = (body: unknown): Sent => (body === undefined ? [] : [JSON.stringify(body), JSON_BODY]);

/** Asks for something that is answered with nothing. */
const order = async (method: string, path: string, body?: unknown): Promise<void> =>
  void (await ask(method, path, ...written(body)));

interface Question {
  /** What stands in the route for each of its names. */
  readonly of?: Readonly<Record<string, string | number>>;
  readonly query?: Readonly<Record<string, string | number>>;
  readonly body?: unknown;
  /** A file in place of a body. */
  readonly file?: File;
  /** Hears how far the file is sent. */
  readonly watch?: Watch | undefined;
}

/** Asks a route. @throws ApiError where it refuses, or where its answer is not what this page understands. */
async function answerOf<R extends AnswerRoute>(
  route: R,
  { of = {}, query, body, file, watch }: Question = {},
): Promise<Answer<R>> {
  const [method = '', pattern = ''] = route.split(' ');
  const path = pattern.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(of[name]!));
  const asked = query
    ? `?${new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value)])).toString()}`
    : '';
  const sent: Sent = file ? [file] : written(body);
  const answer = await ask(method, path + asked, sent[0], sent[1], watch);
  return read(route, answer.status, await answer.json().catch(() => undefined));
}

async function read<R extends AnswerRoute>(route: R, status: number, answer: unknown): Promise<Answer<R>> {
  try {
    return await readAnswer(route, answer);
  } catch (error) {
    throw new ApiError(
      status,
      `The server’s answer to ${route} is not understood (${(error as Error).message}). Reload the page: Jinx may be another version by now.`,
    );
  }
}

export const api = {
  session: () => answerOf('GET /session'),
  signIn: (name: string, password: string) => answerOf('POST /session', { body: { name, password } }),
  signOut: () => order('DELETE', '/session'),
  members: (projectId: string) => answerOf('GET /projects/:id/members', { of: { id: projectId } }),
  setRole: (projectId: string, name: string, role: Role) =>
    order('PUT', `/projects/${projectId}/members`, { name, role }),
  removeMember: (projectId: string, personId: string) =>
    order('DELETE', `/projects/${projectId}/members/${personId}`),

  /** All projects, or those in which something is called so, with the effects that are. */
  projects: (find = '') => answerOf('GET /projects', find ? { query: { find } } : {}),
  addProject: (name: string) => answerOf('POST /projects', { body: { name } }),
  project: (id: string) => answerOf('GET /projects/:id', { of: { id } }),
  search: (id: string, text: string) => answerOf('GET /projects/:id/search', { of: { id }, query: { text } }),
  setTone: (id: string, tone: ToneChoice) => order('PATCH', `/projects/${id}`, { tone }),
  tone: (id: string) => answerOf('GET /projects/:id/tone', { of: { id } }),
  /** What a project keeps one of for each purpose. */
  projectFile: async (id: string, purpose: ProjectFile['purpose']) =>
    (await ask('GET', `/projects/${id}/files/${purpose}`)).blob(),
  keepProjectFile: async (id: string, purpose: ProjectFile['purpose'], file: Blob, name: string, type: string) =>
    void (await ask(
      'PUT',
      `/projects/${id}/files/${purpose}?${new URLSearchParams({ name, type }).toString()}`,
      file,
      { 'Content-Type': 'application/octet-stream' },
    )),
  removeProjectFile: (id: string, purpose: ProjectFile['purpose']) =>
    order('DELETE', `/projects/${id}/files/${purpose}`),
  setBudget: (id: string, livingBudget: number) => order('PATCH', `/projects/${id}`, { livingBudget }),
  deleteProject: (id: string) => order('DELETE', `/projects/${id}`),
  deletedProjects: () => answerOf('GET /deleted'),
  deleted: (projectId: string) => answerOf('GET /projects/:id/deleted', { of: { id: projectId } }),
  setProjectLicence: (id: string, licence: string) => order('PATCH', `/projects/${id}`, { licence }),
  restoreProject: (id: string) => order('POST', `/projects/${id}/restore`),

  addEffect: (projectId: string, document: Effect) =>
    answerOf('POST /projects/:id/effects', { of: { id: projectId }, body: { document } }),
  /** `isAnew`: not as it may have been asked for when the page was loaded. */
  effect: (id: string, isAnew = false) =>
    answerOf('GET /effects/:id', { of: { id }, ...(isAnew ? { query: { anew: 1 } } : {}) }),
  deleteEffect: (id: string) => order('DELETE', `/effects/${id}`),
  restoreEffect: (id: string) => order('POST', `/effects/${id}/restore`),
  sendEdits: (id: string, { revision, head }: Standing, edits: readonly Edit[]) =>
    answerOf('POST /effects/:id/edits', {
      of: { id },
      body: {
        revision,
        head,
        edits: edits.map((edit) => ({
          id: edit.id,
          changes: edit.changes,
          labels: edit.labels.map((label) => label.slice(0, 200)),
        })),
      },
    }),
  since: (id: string, { revision, head }: Standing) =>
    answerOf('GET /effects/:id/edits', { of: { id }, query: { revision, head } }),
  addSibling: (id: string, name: string) => answerOf('POST /effects/:id/siblings', { of: { id }, body: { name } }),
  letSiblingGo: (id: string) => order('DELETE', `/effects/${id}/sibling`),
  savePicture: (id: string, revision: number, png: Blob) =>
    ask('PUT', `/effects/${id}/picture?revision=${revision}`, png),
  /** The address of an effect's last picture, of so many that were kept. */
  pictureAddress: (id: string, pictures: number) => `/api/effects/${id}/picture?number=${pictures}`,

  revisions: (id: string) => answerOf('GET /effects/:id/revisions', { of: { id } }),
  revision: (id: string, revision: number) =>
    answerOf('GET /effects/:id/revisions/:revision', { of: { id, revision } }),
  nameRevision: (id: string, revision: number, name: string | null) =>
    order('PATCH', `/effects/${id}/revisions/${revision}`, { name }),
  tray: (id: string) => answerOf('GET /effects/:id/tray', { of: { id } }),
  /** @param body a state as `keeping/tray.ts` writes it out. */
  putBy: async (id: string, body: string) => void (await ask('POST', `/effects/${id}/tray`, body, JSON_BODY)),
  keptState: (id: string) => answerOf('GET /tray/:id', { of: { id } }),
  keptPictureAddress: (id: string) => `/api/tray/${id}/picture`,
  renameKept: (id: string, name: string) => order('PATCH', `/tray/${id}`, { name }),
  deleteKept: (id: string) => order('DELETE', `/tray/${id}`),
  restoreKept: (id: string) => order('POST', `/tray/${id}/restore`),

  starts: () => answerOf('GET /starts'),
  begin: (projectId: string, start: string, name: string) =>
    answerOf('POST /projects/:id/starts', { of: { id: projectId }, body: { start, name } }),
  kit: () => answerOf('GET /kit'),
  importKit: (projectId: string, file: string) =>
    answerOf('POST /projects/:id/kit', { of: { id: projectId }, body: { file } }),
  importFile: (projectId: string, file: File, watch?: Watch) =>
    answerOf('POST /projects/:id/assets', { of: { id: projectId }, query: { name: file.name }, file, watch }),
  deleteAsset: (projectId: string, hash: string) => order('DELETE', `/projects/${projectId}/assets/${hash}`),
  restoreAsset: (projectId: string, hash: string) => order('POST', `/projects/${projectId}/assets/${hash}/restore`),
  asset: async (hash: string) => new Uint8Array(await (await ask('GET', `/assets/${hash}`)).arrayBuffer()),
  saveThumbnail: (projectId: string, hash: string, png: Blob) =>
    ask('PUT', `/projects/${projectId}/assets/${hash}/thumbnail`, png),
  thumbnailAddress: (projectId: string, hash: string) => `/api/projects/${projectId}/assets/${hash}/thumbnail`,
  kitThumbnailAddress: (file: string) => `/api/kit/${file}/thumbnail`,
  setAssetLicence: (projectId: string, hash: string, licence: string) =>
    order('PATCH', `/projects/${projectId}/assets/${hash}`, { licence }),
  /** Where an asset is saved from, as other programs read it or as it was brought. */
  assetFile: (projectId: string, hash: string, as: 'open' | 'original') =>
    `/api/projects/${projectId}/assets/${hash}/${as}`,
  /** @throws ApiError with the code "parcel-question" and what is open, until it is chosen. */
  importParcel: (projectId: string, file: File, choices: ParcelChoices, watch?: Watch) =>
    answerOf('POST /projects/:id/parcels', {
      of: { id: projectId },
      query: { choices: JSON.stringify(choices) },
      file,
      watch,
    }),
  presets: (projectId: string) => answerOf('GET /projects/:id/presets', { of: { id: projectId } }),
  keepPreset: (projectId: string, name: string, settings: FilmSettings) =>
    order('PUT', `/projects/${projectId}/presets`, { name, settings }),
  deletePreset: (projectId: string, name: string) => order('DELETE', `/projects/${projectId}/presets`, { name }),

  /** Keeps which bones of a figure of the project take the places of those of another. */
  keepBones: (projectId: string, from: string, to: string, bones: Readonly<Record<string, string>>) =>
    order('PUT', `/projects/${projectId}/bones/${from}`, { to, bones }),
  parcelContents: (projectId: string, effects: readonly string[]) =>
    answerOf('GET /projects/:id/parcel/contents', { of: { id: projectId }, query: { effects: effects.join(',') } }),
  attachments: (id: string) => answerOf('GET /effects/:id/attachments', { of: { id } }),
  /** Effects with all they use: as a parcel, or as a page that plays them. */
  handedOver: async (projectId: string, effects: readonly string[], as: 'parcel' | 'page') =>
    await (await ask('GET', `/projects/${projectId}/${as}?effects=${effects.join(',')}`)).blob(),
};
