import type { ToStage } from '@jinx/stage';

/** What the stage is told of a scene, beside its frames. */
export type SceneOrder = Extract<
  ToStage,
  { kind: 'figures' | 'pictures' | 'meshes' | 'layers' | 'lens' | 'air' | 'surround' }
>;
