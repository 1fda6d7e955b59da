import * as THREE from 'three';
import type { DrawnLayer, DrawnLook } from '../protocol.ts';

/** Shaders of a part of a layer, and what they read beside what all do. */
export interface Shaders {
  readonly vertexShader: string;
  readonly fragmentShader: string;
  readonly uniforms: Record<string, THREE.IUniform>;
  /** The look that this part shows. */
  readonly look: DrawnLook;
  /** Whether it only darkens what is behind, however the layer is drawn. */
  readonly isShadow?: boolean;
}

/** What goes round on itself is seen from behind too. */
export const goesRound = ({ drawn }: DrawnLayer): boolean =>
  drawn.kind === 'mesh' || (drawn.kind === 'ribbon' && drawn.form === 'tube');

/** Whether two ways of drawing a layer share their shaders. */
export function sameShaders(a: DrawnLayer, b: DrawnLayer): boolean {
  const shaped = (layer: DrawnLayer) => JSON.stringify({ ...layer, isVisible: true, inside: null });
  return shaped(a) === shaped(b);
}

export function setBlending(material: THREE.Material, blend: DrawnLayer['blend']): void {
  if (blend === 'solid' || blend === 'holes') {
    material.blending = THREE.NoBlending;
    return;
  }
  material.blending = THREE.CustomBlending;
  material.blendEquation = THREE.AddEquation;
  material.blendSrc = blend === 'multiply' ? THREE.ZeroFactor : THREE.OneFactor;
  material.blendDst = blend === 'multiply' ? THREE.SrcColorFactor : THREE.OneMinusSrcAlphaFactor;
}

export function setDepth(material: THREE.Material, { depth, wraps }: DrawnLayer): void {
  material.depthTest = depth !== 'never hidden';
  if (depth === 'only where hidden') material.depthFunc = THREE.GreaterDepth;
  // The far sides of the boxes that marks are drawn with lie behind what they wrap.
  if (!wraps) return;
  material.side = THREE.BackSide;
  material.depthFunc = THREE.GreaterEqualDepth;
}

export function setStencil(material: THREE.Material, bit: number | null, isMarking: boolean): void {
  material.stencilWrite = bit !== null;
  if (bit === null) return;
  const ref = 1 << bit;
  material.stencilRef = ref;
  material.stencilFuncMask = ref;
  material.stencilWriteMask = isMarking ? ref : 0;
  material.stencilFunc = isMarking ? THREE.AlwaysStencilFunc : THREE.EqualStencilFunc;
  material.stencilZPass = isMarking ? THREE.ReplaceStencilOp : THREE.KeepStencilOp;
}
