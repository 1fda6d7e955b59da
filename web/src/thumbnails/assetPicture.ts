import { collectionOf, newEffect, newThing, type Effect, type Vector } from '@jinx/core/document';
import { restExtent, type Rig } from '@jinx/core/geometry';
import { add, AXES, cross, length, mapAxes, scale, subtract, vec3At, type Vec3 } from '@jinx/core/maths';
import type { View } from '@jinx/player/scene';
import type { StagePicture } from '@jinx/stage';

const FIELD_OF_VIEW = 30;
/** From where a mesh is looked at: a little from its left and from above. */
const FROM: Vector = [0.42, 0.3, 1];
/** How far one that is open, or a mere sheet, is looked at from the side that its faces show. */
const TO_FACES = 1.3;
/** How much room is left around it. */
const ROOM = 1.05;
/** Lights, as many radii of the mesh away from its middle: beside the eye, and along its edge from behind. */
const BESIDE: Vector = [-1.3, 1.1, 0.6];
const BEHIND: Vector = [1.8, 1.2, -1.8];
const [BRIGHT, EDGE] = [13, 18];

/** A place, moved so many times along another. */
const moved = (from: Vec3, along: Vec3, times: number): Vector => [...add(from, scale(along, times))];
/** The middle of a mesh, and half of its diagonal. */
function extentOf({ mesh }: Rig): { middle: Vector; radius: number } {
  const { low, high } = restExtent(mesh.positions);
  const middle = low.map((least, n) => (least + high[n]!) / 2) as Vector;
  return { middle, radius: Math.max(0.01, Math.hypot(...high.map((most, n) => most - low[n]!)) / 2) };
}
/** Where the faces of a mesh look on the whole: nowhere (0, 0, 0) for one that is closed, of length 1 for a flat sheet. */
function facing({ mesh: { positions, indices } }: Rig): Vec3 {
  let sum: Vec3 = [0, 0, 0];
  let area = 0;
  for (let n = 0; n < indices.length; n += 3) {
    const [a, b, c] = mapAxes(AXES, (corner) => vec3At(positions, 3 * indices[n + corner]!));
    const normal = cross(subtract(b, a), subtract(c, a));
    sum = add(sum, normal);
    area += length(normal);
  }
  return area > 0 ? scale(sum, 1 / area) : sum;
}

/** From where a mesh is looked at. */
const seenFrom = (rig: Rig): Vector => moved(FROM, facing(rig), TO_FACES);

/** An effect that is nothing but a figure or mesh, lit, with nothing around it. */
export function effectWith(asset: string, name: string, rig: Rig): Effect {
  const { middle, radius } = extentOf(rig);
  const light = (called: string, away: Vector, strength: number) => ({
    ...{ name: called, at: moved(middle, away, radius), colour: '#ffffff' },
    ...{ strength: Math.min(1000, strength * radius * radius), reach: Math.min(100, Math.max(0.1, 8 * radius)) },
  });
  const effect = newEffect(name, 1);
  effect.stage.things = collectionOf([['it', newThing(name, asset)]]);
  effect.stage.surround = 'bare';
  effect.stage.lights = collectionOf([
    ['front', light('front', moved(BESIDE, seenFrom(rig), 1.3), BRIGHT)],
    ['edge', light('edge', BEHIND, EDGE)],
  ]);
  return effect;
}

/** Where a mesh is seen from whole. */
export function viewOfMesh(rig: Rig): View {
  const { middle, radius } = extentOf(rig);
  const from = seenFrom(rig);
  const away = (radius * ROOM) / Math.sin((FIELD_OF_VIEW / 2) * (Math.PI / 180)) / Math.hypot(...from);
  return { position: moved(middle, from, away), target: middle, fieldOfView: FIELD_OF_VIEW, follows: false };
}

/** A picture of the project as large as fits, clear around it. */
export async function pictureWithin(
  { texture: { width, height, rgba } }: StagePicture,
  [wide, tall]: readonly [number, number],
): Promise<ImageBitmap> {
  const whole = await createImageBitmap(new ImageData(new Uint8ClampedArray(rgba), width, height));
  const canvas = new OffscreenCanvas(wide, tall);
  const drawn = canvas.getContext('2d')!;
  const scale = Math.min(wide / width, tall / height);
  drawn.imageSmoothingQuality = 'high';
  drawn.drawImage(whole, (wide - width * scale) / 2, (tall - height * scale) / 2, width * scale, height * scale);
  whole.close();
  return canvas.transferToImageBitmap();
}
