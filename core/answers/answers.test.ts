import { describe, expect, it } from 'vitest';
import { ANSWERS, routeOf } from './index.ts';

describe('the route of a request', () => {
  it('is found by its method and its path, whatever ids and queries that has', () => {
    expect(routeOf('GET', '/projects')).toBe('GET /projects');
    expect(routeOf('GET', '/projects/4f/search?text=wick')).toBe('GET /projects/:id/search');
    expect(routeOf('GET', '/effects/4f/revisions/12')).toBe('GET /effects/:id/revisions/:revision');
    expect(routeOf('POST', '/effects/4f/edits')).toBe('POST /effects/:id/edits');
  });

  it('is none where the answer has no shape', () => {
    expect(routeOf('DELETE', '/effects/4f')).toBeNull();
    expect(routeOf('GET', '/effects/4f/picture?revision=1')).toBeNull();
  });

  it('is its own', () => {
    for (const route of Object.keys(ANSWERS)) {
      const [method = '', path = ''] = route.split(' ');
      expect(routeOf(method, path.replace(/:\w+/g, 'x'))).toBe(route);
    }
  });
});
