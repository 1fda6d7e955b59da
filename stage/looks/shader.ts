import type { ValuePlace } from '@jinx/core/simulation';
import type { DrawnLook } from '../protocol.ts';
import { draws } from './combine.ts';
import { NOISE } from './noise.ts';
import { SHAPE_TOOLS } from './shapes.ts';
import { STEP_CODE } from './steps.ts';

/** Code that reads a number of a frame: shared by the layer, or each particle's own. */
export const valueCode = ({ kind, at }: ValuePlace): string =>
  `${kind === 'shared' ? `shared_values[${at >> 2}]` : `own_values${at >> 2}`}.${'xyzw'[at & 3]}`;

/** Code for a number by its name; one that had no room in the plan is 0. */
export const valueOf = (look: Pick<DrawnLook, 'places'>, name: string): string => {
  const place = look.places[name];
  return place ? valueCode(place) : '0.0';
};

/** How many uniforms of four numbers hold the values that a layer's particles share. */
export const sharedVectors = ({ places }: Pick<DrawnLook, 'places'>): number =>
  Math.max(1, ...Object.values(places).map(({ kind, at }) => (kind === 'shared' ? (at >> 2) + 1 : 1)));

/** What a look's fragment shader and its vertex shader both declare of a frame's numbers. */
export const valueDeclarations = (look: DrawnLook): string => `
  uniform vec4 shared_values[${sharedVectors(look)}];`;

/** How the own numbers of particles come to the fragments: flat, or along a ribbon from joint to joint. */
export const ownVaryings = (look: DrawnLook, isFlat: boolean): string =>
  Array.from({ length: look.ownWords / 4 }, (_, n) => `${isFlat ? 'flat ' : ''}varying vec4 own_values${n};`).join(
    '\n',
  );

/** Attributes for the own numbers, and the code that hands them on. */
export const ownAttributes = (look: DrawnLook): string =>
  Array.from({ length: look.ownWords / 4 }, (_, n) => `attribute vec4 own${n};`).join('\n');
export const ownHandedOn = (look: DrawnLook): string =>
  Array.from({ length: look.ownWords / 4 }, (_, n) => `own_values${n} = own${n};`).join('\n');

/** Whether a look asks how far what is solid lies behind it. */
export const readsDepth = (look: Pick<DrawnLook, 'steps'>): boolean => look.steps.some(({ kind }) => kind === 'soft');

/** Samplers of the steps that have pictures or gradients, by the number of the step. */
function samplers({ steps }: DrawnLook): string {
  return steps
    .map(({ kind, picture }, n) =>
      kind === 'gradient' ? `uniform sampler2D gradient${n};` : picture ? `uniform sampler2D picture${n};` : '',
    )
    .join('\n');
}

/**
 * The part of a fragment shader that runs a look's steps. It wants `seconds`, `age`, `lot`, `toward_eye`, `eye_distance`
 * and, where depth is read, `behind()`; `lookAt` writes straight colour, opacity and what glows by itself, and leaves in
 * `moved` where the steps look in the end. With `isCut` only the first `upto` steps act.
 */
export function lookCode(look: DrawnLook, isCut = false): string {
  const steps = look.steps.map((step, n) => {
    const value = (name: string) => valueOf(look, `step/${step.id}/${name}`);
    return `${isCut ? `if (upto > ${n}) ` : ''}{ // ${step.kind}\n${STEP_CODE[step.kind](step, value, n, {
      isDrawn: look.steps.slice(0, n).some(draws),
      isScrolled: look.steps.slice(0, n).some(({ kind }) => kind === 'scroll'),
    })}\n }`;
  });
  return `
  ${NOISE}
  ${SHAPE_TOOLS}
  ${samplers(look)}
  uniform float clock;
  vec2 moved;
  ${isCut ? 'uniform int upto;' : ''}
  void lookAt(vec2 p, out vec3 rgb, out float a, out vec3 emit) {
    rgb = vec3(1.0); a = 1.0; emit = vec3(0.0);
    vec2 own_piece = vec2(drawnAt(lot, 7001u), drawnAt(lot, 7002u)) * 64.0;
    ${steps.join('\n    ')}
    moved = p;
  }`;
}
