import * as THREE from 'three';

/** How a flat picture, its colours already times its opacity, is laid over what is drawn: whole, whatever its depth. */
export const PREMULTIPLIED = {
  depthTest: false,
  depthWrite: false,
  transparent: true,
  blending: THREE.CustomBlending,
  blendSrc: THREE.OneFactor,
  blendDst: THREE.OneMinusSrcAlphaFactor,
} as const satisfies THREE.ShaderMaterialParameters;
