import { PerspectiveCamera, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { alongAxis, angleRound, onPlane, Picture } from './picture';

const view = (position: [number, number, number]) => {
  const camera = new PerspectiveCamera(40, 1, 0.02, 200);
  camera.position.set(...position);
  camera.lookAt(0, 1, 0);
  return camera;
};
const near = (found: Vector3 | null, wanted: [number, number, number]) =>
  wanted.forEach((value, axis) => expect(found!.getComponent(axis)).toBeCloseTo(value, 4));

describe('between the stage’s window and the world', () => {
  const picture = new Picture(view([3, 2, 5]), [0, 0], 800, 500);
  it('shows what the camera looks at in the middle, and a sight through a spot goes back through the place', () => {
    expect(picture.spot(new Vector3(0, 1, 0))).toMatchObject({ isAhead: true });
    expect(picture.spot(new Vector3(0, 1, 0)).x).toBeCloseTo(400, 4);
    const place = new Vector3(0.7, 1.6, -0.4);
    const { x, y } = picture.spot(place);
    near(onPlane(picture.sight(x, y), place, picture.ahead), [0.7, 1.6, -0.4]);
  });

  it('knows what lies behind the camera', () => expect(picture.spot(new Vector3(6, 3, 10)).isAhead).toBe(false));

  it('goes along with the figure that the camera follows', () => {
    const moved = new Picture(view([3, 2, 5]), [2, -1], 800, 500);
    expect(moved.spot(new Vector3(2, 1, -1)).x).toBeCloseTo(400, 4);
  });

  it('says how wide a pixel is where something stands', () => {
    const place = new Vector3(0, 1, 0);
    const side = new Vector3(1, 0, 0).transformDirection(picture.camera.matrixWorld);
    const moved = picture.spot(place.clone().addScaledVector(side, picture.metresAPixel(place) * 10));
    expect(moved.x).toBeCloseTo(410, 2);
  });
});

describe('dragging', () => {
  const picture = new Picture(view([3, 2, 5]), [0, 0], 800, 500);
  const sightOf = (place: Vector3) => {
    const { x, y } = picture.spot(place);
    return picture.sight(x, y);
  };
  it('along an axis finds how far the pointer has come along it', () => {
    const origin = new Vector3(0, 1, 0);
    for (const axis of [new Vector3(1, 0, 0), new Vector3(0, 1, 0), new Vector3(0, 0.6, 0.8)])
      expect(alongAxis(sightOf(origin.clone().addScaledVector(axis, 0.7)), origin, axis)).toBeCloseTo(0.7, 4);
  });

  it('has nothing to say along an axis that points at the camera, or on a plane seen edge-on', () => {
    const sight = sightOf(new Vector3(0, 1, 0));
    expect(alongAxis(sight, new Vector3(0, 1, 0), sight.way.clone())).toBeNull();
    const sideways = sight.way.clone().cross(new Vector3(0, 1, 0));
    expect(onPlane(sight, new Vector3(0, 1, 0), sideways)).toBeNull();
  });

  it('round an axis counts degrees by the right hand', () => {
    const [origin, up] = [new Vector3(0, 1, 0), new Vector3(0, 1, 0)];
    expect(angleRound(origin, up, new Vector3(1, 1, 0), new Vector3(0, 1, -1))).toBeCloseTo(90, 5);
    expect(angleRound(origin, up, new Vector3(1, 1, 0), new Vector3(1, 3, 1))).toBeCloseTo(-45, 5);
  });
});
