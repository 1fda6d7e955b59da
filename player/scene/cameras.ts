import { listed, type Camera, type Effect } from '@jinx/core/document';
import { gameDistance } from '@jinx/stage';

/** Where the stage is seen from: metres, degrees from top to bottom. */
export type View = Omit<Camera, 'name'>;

export { FIRST_VIEW } from './firstView.ts';

/** Closer, for the small pictures of the home page. */
export const PICTURE_VIEW: View = {
  position: [0.95, 1.35, 3.1],
  target: [0.05, 1.02, 0],
  fieldOfView: 34,
  follows: true,
};

const FIELD_OF_VIEW = 34;
const [SIDE, RISE] = [0.3, 0.34];
/** As a game sees a fight: a figure is small, a little from above. */
export const FAR_VIEW: View = {
  position: [
    gameDistance(FIELD_OF_VIEW) * SIDE,
    gameDistance(FIELD_OF_VIEW) * RISE,
    gameDistance(FIELD_OF_VIEW) * Math.sqrt(1 - SIDE * SIDE - RISE * RISE),
  ],
  target: [0, 0.9, 0],
  fieldOfView: FIELD_OF_VIEW,
  follows: true,
};

/** The camera that an effect opens with and is pictured from, if it keeps any. */
export const firstCamera = (effect: Effect): Camera | null => listed(effect.stage.cameras)[0]?.item ?? null;
