import type { Effect, SetLine } from '@jinx/core/document';

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
}

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
export interface ProjectDetail {
  readonly id: string;
  readonly name: string;
  readonly livingBudget: number;
  readonly effects: EffectSummary[];
  readonly assets: AssetSummary[];
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
/** An effect as it was, kept when it was saved over. */
export interface Revision {
  readonly revision: number;
  readonly keptAt: string;
}
export interface StoredEffect {
  readonly id: string;
  readonly projectId: string;
  readonly revision: number;
  readonly document: Effect;
  readonly siblingOf: EffectKin | null;
  readonly siblings: readonly EffectKin[];
}

export const api = {
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
  saveEffect: (id: string, revision: number, document: Effect) =>
    json<{ revision: number }>('PUT', `/effects/${id}`, { revision, document }),
  addSibling: (id: string, name: string) => json<{ id: string }>('POST', `/effects/${id}/siblings`, { name }),
  letSiblingGo: (id: string) => json<void>('DELETE', `/effects/${id}/sibling`),
  revisions: (id: string) => json<Revision[]>('GET', `/effects/${id}/revisions`),
  revision: (id: string, revision: number) =>
    json<{ document: Effect }>('GET', `/effects/${id}/revisions/${revision}`),
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
  importParcel: async (projectId: string, file: File) =>
    (await (await ask('POST', `/projects/${projectId}/parcels`, file)).json()) as { id: string; name: string },
  asset: async (hash: string) => new Uint8Array(await (await ask('GET', `/assets/${hash}`)).arrayBuffer()),
  savePicture: (id: string, revision: number, png: Blob) =>
    ask('PUT', `/effects/${id}/picture?revision=${revision}`, png),
  pictureAddress: (id: string, revision: number) => `/api/effects/${id}/picture?revision=${revision}`,
  parcel: async (id: string) => await (await ask('GET', `/effects/${id}/parcel`)).blob(),
};
