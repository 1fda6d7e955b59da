/** The view an effect opens with when it keeps no camera: a figure, whole, a little from the side. */
export const FIRST_VIEW = {
  position: [1.35, 1.45, 4.3] as [number, number, number],
  target: [0, 0.98, 0] as [number, number, number],
  fieldOfView: 34,
  follows: true,
};
