export interface View {
  position: [number, number, number];
  target: [number, number, number];
  fieldOfView: number;
  follows: boolean;
}

/** The view an effect opens with: a figure, whole, a little from the side. */
export const FIRST_VIEW: View = { position: [1.35, 1.45, 4.3], target: [0, 0.98, 0], fieldOfView: 34, follows: true };

/** Closer, for the small pictures of the home page. */
export const PICTURE_VIEW: View = {
  position: [0.95, 1.35, 3.1],
  target: [0.05, 1.02, 0],
  fieldOfView: 34,
  follows: true,
};
