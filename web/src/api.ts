import type { Change, Edit, Effect, SetLine } from '@jinx/core/document';

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
): Promise<Response> {
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, { method, body, headers });
  } catch {
    throw new ApiError(0, 'The server does not answer: is Jinx still running?');
  }
  if (answer.ok) return answer;
  if (answer.status === 401) signedOut();
  const problem = (await answer.json().catch(() => ({}))) as Record<string, unknown>;
  throw new ApiError(answer.status, String(problem['sentence'] ?? `The server answered ${answer.status}.`), problem);
}

const json = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
  const answer = await ask(
    method,
    path,
    body === undefined ? undefined : JSON.stringify(body),
    body === undefined ? {} : { 'Content-Type': 'application/json' },
  );
  return answer.status === 204 ? (undefined as T) : ((await answer.json()) as T);
};

export interface ProjectSummary {
  readonly id: string;
  readonly name: string;
  readonly effects: number;
}
export interface AssetSummary {
  readonly hash: string;
  readonly name: string;
  readonly kind: 'rig' | 'picture';
}
export interface EffectSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly savedAt: string;
  /** The revision its picture shows; null without one. */
  readonly pictureRevision: number | null;
  /** The name of the effect it keeps what it does not change of; null without one. */
  readonly siblingOf: string | null;
}
/** The disk that a project and all of them take, and may take, in bytes. */
export interface DiskUse {
  readonly bytes: number;
  readonly mostBytes: number;
  readonly allBytes: number;
  readonly mostAllBytes: number;
}
export interface ProjectDetail {
  readonly id: string;
  readonly name: string;
  readonly livingBudget: number;
  readonly effects: EffectSummary[];
  readonly assets: AssetSummary[];
  readonly disk: DiskUse;
}
/** An effect to begin with, by what it is for. */
export interface Start {
  readonly id: string;
  readonly intent: string;
  readonly about: string;
  /** How many instants stand side by side in its picture, and which is seen while it does not play. */
  readonly instants: number;
  readonly rest: number;
}
/** Where a word was found in one effect. */
export interface FoundIn {
  readonly id: string;
  readonly name: string;
  readonly lines: readonly SetLine[];
  readonly more: number;
}
/** An effect that another hangs together with. */
export interface EffectKin {
  readonly id: string;
  readonly name: string;
}
/** An effect as it was at a revision, or is. */
export interface Revision {
  readonly revision: number;
  readonly savedAt: string;
  /** Who made it, where people sign in. */
  readonly by: string;
  readonly name: string | null;
  /** What was done since the revision before it in the list, in words, the latest last. */
  readonly labels: readonly string[];
}
/** Where an effect stands: its revision, and the id of the edit that made it. */
export interface Standing {
  readonly revision: number;
  readonly head: string;
}
/** How far the effects that follow one have come. */
export interface Following {
  /** Effects that have yet to take its changes. */
  readonly waiting: number;
  /** Those that could not, and why. */
  readonly failed: readonly { readonly name: string; readonly sentence: string }[];
}
/** What others changed of an effect since a revision. */
export interface Since extends Standing {
  readonly theirs: readonly Change[];
  readonly by: readonly string[];
  /** What they did, in words. */
  readonly labels: readonly string[];
}
/** A state of an effect that was put by. */
export interface KeptState {
  readonly id: string;
  readonly name: string;
  readonly keptAt: string;
  readonly by: string;
  readonly seconds: number;
  readonly hasPicture: boolean;
}
/** Something that was deleted and can be brought back. */
export interface Deleted {
  readonly id: string;
  readonly name: string;
  readonly deletedAt: string;
}
export interface StoredEffect extends Standing {
  readonly id: string;
  readonly projectId: string;
  readonly document: Effect;
  readonly siblingOf: EffectKin | null;
  readonly siblings: readonly EffectKin[];
  readonly following: Following;
}

/** Something of a parcel that has the name of something else in the project, and what may be done with it. */
export interface ParcelClash {
  /** An asset's hash, or "effect". */
  readonly of: string;
  readonly kind: 'effect' | 'rig' | 'picture';
  readonly name: string;
}
export type ParcelChoice = 'both' | 'over' | 'present';

/** What somebody may do in a project. */
export type Role = 'viewer' | 'editor' | 'owner';
export interface Members {
  readonly hasSignIn: boolean;
  readonly role: Role;
  readonly members: readonly { readonly id: string; readonly name: string; readonly role: Role }[];
}

export const api = {
  session: () => json<{ hasSignIn: boolean; name: string | null }>('GET', '/session'),
  signIn: (name: string, password: string) => json<{ name: string }>('POST', '/session', { name, password }),
  signOut: () => json<void>('DELETE', '/session'),
  members: (projectId: string) => json<Members>('GET', `/projects/${projectId}/members`),
  setRole: (projectId: string, name: string, role: Role) =>
    json<void>('PUT', `/projects/${projectId}/members`, { name, role }),
  removeMember: (projectId: string, personId: string) =>
    json<void>('DELETE', `/projects/${projectId}/members/${personId}`),
  projects: () => json<ProjectSummary[]>('GET', '/projects'),
  addProject: (name: string) => json<{ id: string }>('POST', '/projects', { name }),
  project: (id: string) => json<ProjectDetail>('GET', `/projects/${id}`),
  search: (id: string, text: string) =>
    json<FoundIn[]>('GET', `/projects/${id}/search?text=${encodeURIComponent(text)}`),
  setBudget: (id: string, livingBudget: number) => json<void>('PATCH', `/projects/${id}`, { livingBudget }),
  deleteProject: (id: string) => json<void>('DELETE', `/projects/${id}`),
  addEffect: (projectId: string, document: Effect) =>
    json<Pick<StoredEffect, 'id' | 'revision'>>('POST', `/projects/${projectId}/effects`, { document }),
  effect: (id: string) => json<StoredEffect>('GET', `/effects/${id}`),
  sendEdits: (id: string, { revision, head }: Standing, edits: readonly Edit[]) =>
    json<Since & { readonly following: Following }>('POST', `/effects/${id}/edits`, {
      revision,
      head,
      edits: edits.map((edit) => ({
        id: edit.id,
        changes: edit.changes,
        labels: edit.labels.map((label) => label.slice(0, 200)),
      })),
    }),
  since: (id: string, { revision, head }: Standing) =>
    json<Since>('GET', `/effects/${id}/edits?revision=${revision}&head=${head}`),
  addSibling: (id: string, name: string) => json<{ id: string }>('POST', `/effects/${id}/siblings`, { name }),
  letSiblingGo: (id: string) => json<void>('DELETE', `/effects/${id}/sibling`),
  revisions: (id: string) => json<Revision[]>('GET', `/effects/${id}/revisions`),
  revision: (id: string, revision: number) =>
    json<{ document: Effect }>('GET', `/effects/${id}/revisions/${revision}`),
  nameRevision: (id: string, revision: number, name: string | null) =>
    json<void>('PATCH', `/effects/${id}/revisions/${revision}`, { name }),
  tray: (id: string) => json<KeptState[]>('GET', `/effects/${id}/tray`),
  /** @param body a state as `keeping/tray.ts` writes it out. */
  putBy: async (id: string, body: string) =>
    void (await ask('POST', `/effects/${id}/tray`, body, { 'Content-Type': 'application/json' })),
  keptState: (id: string) => json<{ document: Effect }>('GET', `/tray/${id}`),
  keptPictureAddress: (id: string) => `/api/tray/${id}/picture`,
  renameKept: (id: string, name: string) => json<void>('PATCH', `/tray/${id}`, { name }),
  deleteKept: (id: string) => json<void>('DELETE', `/tray/${id}`),
  restoreKept: (id: string) => json<void>('POST', `/tray/${id}/restore`),
  deletedProjects: () => json<Deleted[]>('GET', '/deleted'),
  deleted: (projectId: string) =>
    json<{ effects: Deleted[]; assets: (AssetSummary & { deletedAt: string })[] }>(
      'GET',
      `/projects/${projectId}/deleted`,
    ),
  restoreProject: (id: string) => json<void>('POST', `/projects/${id}/restore`),
  restoreEffect: (id: string) => json<void>('POST', `/effects/${id}/restore`),
  deleteAsset: (projectId: string, hash: string) => json<void>('DELETE', `/projects/${projectId}/assets/${hash}`),
  restoreAsset: (projectId: string, hash: string) =>
    json<void>('POST', `/projects/${projectId}/assets/${hash}/restore`),
  deleteEffect: (id: string) => json<void>('DELETE', `/effects/${id}`),
  starts: () => json<Start[]>('GET', '/starts'),
  begin: (projectId: string, start: string, name: string) =>
    json<{ id: string; name: string }>('POST', `/projects/${projectId}/starts`, { start, name }),
  kit: () => json<string[]>('GET', '/kit'),
  importKit: (projectId: string, file: string) => json<AssetSummary>('POST', `/projects/${projectId}/kit`, { file }),
  importFile: async (projectId: string, file: File) =>
    (await (
      await ask('POST', `/projects/${projectId}/assets?name=${encodeURIComponent(file.name)}`, file)
    ).json()) as AssetSummary,
  /** @throws ApiError with the code "parcel-clash" and the clashes, until each is chosen. */
  importParcel: async (projectId: string, file: File, choices: Readonly<Record<string, ParcelChoice>> = {}) =>
    (await (
      await ask('POST', `/projects/${projectId}/parcels?choices=${encodeURIComponent(JSON.stringify(choices))}`, file)
    ).json()) as { id: string; name: string; isKnown: boolean },
  asset: async (hash: string) => new Uint8Array(await (await ask('GET', `/assets/${hash}`)).arrayBuffer()),
  savePicture: (id: string, revision: number, png: Blob) =>
    ask('PUT', `/effects/${id}/picture?revision=${revision}`, png),
  pictureAddress: (id: string, revision: number) => `/api/effects/${id}/picture?revision=${revision}`,
  parcel: async (id: string) => await (await ask('GET', `/effects/${id}/parcel`)).blob(),
};
