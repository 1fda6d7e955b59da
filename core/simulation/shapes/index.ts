import { SHAPES } from './kinds.ts';

export { SHAPES };
export type ShapeKind = keyof typeof SHAPES;
export const SHAPE_KINDS = Object.keys(SHAPES) as ShapeKind[];
export const isShapeKind = (kind: string): kind is ShapeKind => Object.hasOwn(SHAPES, kind);
export { LocalPoint, type MeasureName, type Measures, type Region, type ShapeDefinition } from './shape.ts';
