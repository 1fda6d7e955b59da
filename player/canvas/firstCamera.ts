import type { CameraView } from '../api.ts';

/** A figure, whole, a little from the side: where the camera stands until an effect or the page chooses another. */
export const FIRST_CAMERA: CameraView = {
  position: [1.35, 1.45, 4.3],
  target: [0, 0.98, 0],
  fieldOfView: 34,
  follows: true,
};
