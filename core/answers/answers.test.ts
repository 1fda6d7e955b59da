import { describe, expect, it } from 'vitest';
import { answerRoutes, readAnswer, routeOf } from './index.ts';

describe('the route of a request', () => {
  it('is found by its method and its path, whatever ids and queries that has', async () => {
    expect(await routeOf('GET', '/projects')).toBe('GET /projects');
    expect(await routeOf('GET', '/projects/4f/search?text=wick')).toBe('GET /projects/:id/search');
    expect(await routeOf('GET', '/effects/4f/revisions/12')).toBe('GET /effects/:id/revisions/:revision');
    expect(await routeOf('POST', '/effects/4f/edits')).toBe('POST /effects/:id/edits');
  });

  it('is none where the answer has no shape', async () => {
    expect(await routeOf('DELETE', '/effects/4f')).toBeNull();
    expect(await routeOf('GET', '/effects/4f/picture?revision=1')).toBeNull();
  });

  it('is its own', async () => {
    for (const route of await answerRoutes()) {
      const [method = '', path = ''] = route.split(' ');
      expect(await routeOf(method, path.replace(/:\w+/g, 'x'))).toBe(route);
    }
  });
});

describe('an answer', () => {
  it('is read, without what it has beside', async () => {
    expect(await readAnswer('POST /effects/:id/tray', { id: 'a', more: 1 })).toEqual({ id: 'a' });
  });
  it('is refused with the place where it is not as it should be, also where a document is in it', async () => {
    await expect(readAnswer('POST /effects/:id/tray', { id: 1 })).rejects.toThrow(/^at id: /);
    await expect(readAnswer('GET /tray/:id', { document: { schema: 1 } })).rejects.toThrow(/^at document\.schema: /);
  });
});
