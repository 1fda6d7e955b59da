import type { Surface } from '@jinx/core/document';
import { pieces, type Piece } from './forceWords';

export const SURFACE_NAMES: Record<Surface['kind'], string> = {
  ground: 'Ground',
  sphere: 'Sphere',
  box: 'Box',
  thing: 'Thing on the stage',
  mesh: 'Mesh',
  layer: 'Mesh of a layer',
};

const SHAPES: Record<Surface['kind'], string> = {
  ground: 'the ground at {@}',
  sphere: 'a sphere of {radius} at {@}',
  box: 'a box {wide} wide, {tall} tall, {deep} deep at {@}',
  thing: '{thing}',
  mesh: '{mesh}, {wide} wide, {tall} tall, {deep} deep at {@}',
  layer: 'the mesh that {layer} is drawn as',
};

const choiceOf = (surface: Surface, name: 'act' | 'side'): string => {
  const { base } = surface.settings[name];
  return base.kind === 'fixed' ? String(base.value) : '';
};

/** What a surface is and does, as a sentence of pieces; what is not in use is left out. */
export function surfaceSentence(surface: Surface): Piece[] {
  const act = choiceOf(surface, 'act');
  const meeting = {
    bounce: ', with {bounce} of their speed, {friction} of friction, scattered by {roughness}',
    slide: ', with {friction} of friction',
    keep: ', {offset} off it, when within {within}',
  }[act];
  return pieces(`They {act} ${act === 'slide' ? '' : 'on '}${SHAPES[surface.kind]}${meeting ?? ''}`);
}

/** On whom, from where and at what distance. */
export function meetingSentence(surface: Surface): Piece[] {
  const isKept = choiceOf(surface, 'act') === 'keep';
  return pieces(isKept ? 'For {share} of them' : 'Met from {side} by {share} of them, {offset} off');
}
