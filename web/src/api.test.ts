import { newEffect, SCHEMA } from '@jinx/core/document';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from './api';

const asked: { url: string; method: string | undefined; body: unknown }[] = [];
function answering(status: number, body: unknown): void {
  vi.stubGlobal('fetch', (url: string, { method, body: sent }: RequestInit) => {
    asked.push({ url, method, body: sent });
    return Promise.resolve(new Response(body === undefined ? null : JSON.stringify(body), { status }));
  });
}
afterEach(() => {
  asked.length = 0;
  vi.unstubAllGlobals();
});

const STORED = {
  id: 'e',
  projectId: 'p',
  livingBudget: 1000,
  revision: 3,
  head: 'h',
  document: newEffect('Wick', 7),
  siblingOf: null,
  siblings: [],
  following: { at: 1, waiting: 0, failed: [] },
};

describe('what the server answers', () => {
  it('is read as it is meant, without what this page does not know', async () => {
    answering(200, { ...STORED, news: 'of a later version' });
    expect(await api.effect('e')).toEqual(STORED);
    expect(asked).toEqual([{ url: '/api/effects/e', method: 'GET', body: undefined }]);
  });

  it('is refused, with what was asked and where it is wrong, where it is not understood', async () => {
    answering(200, { ...STORED, following: { at: 1, waiting: 'none', failed: [] } });
    await expect(api.effect('e')).rejects.toThrow(/GET \/effects\/:id is not understood \(at following\.waiting/);
    answering(200, 'no JSON object');
    const error = await api.projects().catch((error: unknown) => error);
    expect(error).toBeInstanceOf(ApiError);
    expect((error as ApiError).isOffline).toBe(false);
    expect((error as ApiError).isFinal).toBe(true);
  });

  it('is refused where an effect is of another version', async () => {
    answering(200, { ...STORED, document: { ...STORED.document, schema: SCHEMA + 1 } });
    await expect(api.effect('e')).rejects.toThrow(/at document: this is no effect of this version/);
  });

  it('is refused where a document has what no effect has', async () => {
    answering(200, { document: { ...newEffect('Wick', 7), spells: 3 } });
    await expect(api.keptState('k')).rejects.toThrow(/at document/);
  });

  it('names what stands in an address, whatever letters that has', async () => {
    answering(200, []);
    await api.search('a/b', 'wick & salt');
    expect(asked[0]!.url).toBe('/api/projects/a%2Fb/search?text=wick+%26+salt');
  });

  it('may be nothing', async () => {
    answering(204, undefined);
    expect(await api.renameKept('k', 'Moth')).toBeUndefined();
    expect(asked[0]).toEqual({ url: '/api/tray/k', method: 'PATCH', body: '{"name":"Moth"}' });
  });
});
