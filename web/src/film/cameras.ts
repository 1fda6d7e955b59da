import { listed, type Effect } from '@jinx/core/document';
import type { FilmSettings } from '@jinx/core/formats';
import type { View } from '@jinx/player/scene';

export type FilmCamera = FilmSettings['camera'];

/** A view as settings hold it. */
export const cameraOf = ({ position, target, fieldOfView, follows }: View): FilmCamera => ({
  position: [...position],
  target: [...target],
  fieldOfView,
  follows,
});

/** What an effect can be seen from: as the stage is, if there is one, the cameras that it keeps, as it opens. */
export const camerasOf = (effect: Effect, view: FilmCamera) => [
  ...(view ? [{ value: 'view', label: 'as the stage is seen', camera: view }] : []),
  ...listed(effect.stage.cameras).map(({ id, item }) => ({ value: id, label: item.name, camera: cameraOf(item) })),
  { value: 'own', label: 'as it opens', camera: null },
];
