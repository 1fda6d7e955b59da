import { describe, expect, it } from 'vitest';
import { keyOf, hash2 } from '../../maths/index.ts';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import * as reading from '../../../docs/reading/births.mjs';
// @ts-expect-error it is plain JavaScript, for whoever reads it without Jinx
import * as meshReading from '../../../docs/reading/meshBirths.mjs';
import { birthVectors } from './births.ts';
import { linkVectors, shapeVectors } from './vectors.ts';

type Three = readonly number[];
interface Birth {
  readonly at: Three;
  readonly out: Three;
  readonly normal: Three;
  readonly along: Three;
}
type Ask = { readonly key: number; readonly number: number };
const { sharesOf, onShape, onPath, onBones, onParticle, wayOf } = reading as {
  sharesOf(order: string, ask: Ask & { salt: number; walk: number }, kind: string, region?: string): Three;
  onShape(kind: string, region: string, measures: object, shares: Three): Birth;
  onPath(points: readonly Three[], closed: boolean, shares: Three): Birth;
  onBones(spans: readonly (readonly [Three, Three])[], shares: Three): Birth;
  onParticle(parents: readonly object[], ask: Ask & { share: number; time: number }, ring: object): Birth;
  wayOf(launch: string, birth: Birth, key: number, more: object): Three;
};
const { onMesh, evenSpots, insideSpots } = meshReading as {
  onMesh(mesh: object, region: string, order: string, ask: object, spots?: readonly object[]): Birth;
  evenSpots(mesh: object, region: string, count: number): readonly object[];
  insideSpots(mesh: object): readonly object[];
};

const vectors = birthVectors();
const { figure, salt } = vectors;
const inside = insideSpots(figure);
function expectNear(ours: Three, theirs: Three, digits = 5) {
  expect(theirs).toHaveLength(3);
  ours.forEach((x, n) => expect(theirs[n]!).toBeCloseTo(x, digits));
}

describe('another reading of where births fall', () => {
  it.each(vectors.mesh)('on the $region of a mesh that is bent, $order, has the same places', (given) => {
    const { region, order, walk, births } = given;
    const spots = region === 'volume' ? inside : order === 'even' ? evenSpots(figure, region, 3) : undefined;
    expect(births).toHaveLength(3);
    for (const { key, number, at, way } of births) {
      const birth = onMesh(figure, region, order, { key, number, walk }, spots);
      expectNear(at, birth.at);
      expectNear(way, birth.normal);
    }
  });

  it.each(vectors.bones)('on bones ($along) has the same places', ({ along, births }) => {
    const [low, high] = [figure.bones.slice(0, 16), figure.bones.slice(16)];
    const spans = along === 'joints' ? [[low, low] as const, [high, high] as const] : [[low, high] as const];
    for (const { key, number, at, way } of births) {
      const birth = onBones(spans, sharesOf('random', { key, number, salt, walk: 24 }, 'bones'));
      expectNear(at, birth.at);
      expectNear(way, birth.out);
    }
  });

  it.each(vectors.path)('on a drawn path (closed: $closed) has the same places', ({ points, closed, births }) => {
    for (const { key, number, at, way } of births) {
      const birth = onPath(points, closed, sharesOf('even', { key, number, salt, walk: 24 }, 'path'));
      expectNear(at, birth.at);
      expectNear(way, birth.along);
    }
  });

  it('on other particles, and on rings about them, has the same places', () => {
    const { alone, ring } = vectors.particles;
    expect([alone.births.length, ring.births.length]).toEqual([4, 4]);
    const ask = { share: 0, time: vectors.seconds };
    for (const { key, number, at, way } of alone.births) {
      const birth = onParticle(alone.parents, { key, number, ...ask }, { radius: 0 });
      expectNear(at, birth.at);
      expectNear(way, birth.out);
    }
    for (const { key, number, at, way } of ring.births) {
      const birth = onParticle(ring.parents, { key, number, ...ask }, ring);
      expectNear(at, birth.at, 4);
      expectNear(way, birth.out, 4);
    }
  });

  it('of hits: as many as their strength says, where they are and upright on them', () => {
    const { births, at, strike, perHit, strength } = vectors.hits;
    const [byList, byStrike] = [
      Math.floor((perHit * strength) / 100 + 0.5),
      Math.floor(perHit * strike.strength + 0.5),
    ];
    expect(births).toHaveLength(byList + byStrike);
    births.forEach((birth, n) => {
      expectNear(birth.at, n < byList ? at : strike.at);
      expectNear(birth.way, n < byList ? [1, 0, 0] : strike.normal);
    });
  });

  it.each(vectors.launches)('leaves $launch the same way', (given) => {
    const { launch, angle, opening, axis, aim, radius, births } = given;
    for (const { key, number, at, way } of births) {
      const shares = sharesOf('random', { key, number, salt, walk: 24 }, 'ring', 'edge');
      const birth = onShape('ring', 'edge', { radius, thickness: 0, arc: 1 }, shares);
      expectNear(at, birth.at);
      expectNear(way, wayOf(launch, birth, key, { angle, opening, axis, aim: { at: aim, axis } }));
    }
  });

  /** What shapes have by default. */
  const measures = { length: 1, arc: 1, rise: Math.PI, angle: (18 * Math.PI) / 180, depth: 1, size: [1, 1, 1] };
  it.each(shapeVectors())('on the $region of a $kind has the same places', (given) => {
    const { kind, region, radius, thickness, particles } = given;
    for (const { number, place } of particles) {
      const key = keyOf(hash2(7, salt), number);
      const shares = sharesOf('random', { key, number, salt, walk: 24 }, kind, region);
      const { at, out } = onShape(kind, region, { ...measures, radius, thickness }, shares);
      expectNear(
        place,
        at.map((x, n) => x + out[n]! / 60 + (n === 1 ? 1 : 0)),
      );
    }
  });

  it('of links have the keys that parent, link, event and number give', () => {
    const links = linkVectors();
    const parents = [0, 1].map((number) => keyOf(hash2(7, salt), number));
    const keys = parents.flatMap((parent) =>
      Array.from({ length: links.count }, (_, n) => hash2(hash2(hash2(parent, links.salt), 0), n)),
    );
    expect([...links.keys].sort()).toEqual(keys.sort());
  });
});
