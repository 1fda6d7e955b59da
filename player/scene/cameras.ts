import { listed, type Camera, type Effect } from '@jinx/core/document';
import { gameDistance } from '@jinx/stage';
import { FIRST_VIEW } from './firstView.ts';

/** Where the stage is seen from: metres, degrees from top to bottom. */
export type View = Omit<Camera, 'name'>;

export { FIRST_VIEW };

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

/** Metres from which a figure is seen whole, level. */
const LEVEL_DISTANCE = 4.5;
const level = (name: string, way: readonly [number, number, number]) => ({
  name,
  view: {
    position: way.map((part, axis) => part * LEVEL_DISTANCE + FIRST_VIEW.target[axis]!) as View['position'],
    target: FIRST_VIEW.target,
    fieldOfView: FIELD_OF_VIEW,
    follows: true,
  },
});
/** Straight from one side. Straight down is a little aside, since a camera that looks along the vertical has no upright. */
export const SIDE_VIEWS: readonly { readonly name: string; readonly view: View }[] = [
  level('front', [0, 0, 1]),
  level('left', [1, 0, 0]),
  level('right', [-1, 0, 0]),
  level('back', [0, 0, -1]),
  level('top', [0, 1, 0.001]),
];

/** The camera that an effect opens with and is pictured from, if it keeps any. */
export const firstCamera = (effect: Effect): Camera | null => listed(effect.stage.cameras)[0]?.item ?? null;
