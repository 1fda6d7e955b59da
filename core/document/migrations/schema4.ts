import { emptyCollection } from '../../settings/index.ts';
import { copyOf, fill, itemsOf, loose, type Literals, type Loose } from './loose.ts';

/** What came with schema 4, by default. */
const LAYER = {
  'life.width': 100,
  'life.height': 100,
  'life.depth': 100,
  'appearance.lengthening': 0.04,
  'appearance.pivotAcross': 0,
  'appearance.pivotAlong': 0,
  'appearance.wraps': false,
  'appearance.wrapDepth': 0.5,
  'appearance.lit': 'unlit',
  'appearance.litShare': 100,
  'appearance.covers': 50,
  'appearance.threshold': 50,
  'appearance.order': 'newest',
  'appearance.depth': 'as placed',
  'appearance.nudge': 0,
};

/** Settings of what is drawn as ribbons. */
const RIBBONS: Readonly<Record<string, Literals>> = {
  trail: {
    every: 0.06,
    seconds: 0,
    lasts: 0.6,
    drift: 0,
    feels: false,
    ends: 'stays',
    most: 20000,
    atHead: 100,
    atTail: 0,
    bulge: 100,
    form: 'flat',
    laid: 'once',
    tile: 1,
  },
  strand: {
    strands: 1,
    longest: 0,
    atHead: 100,
    atTail: 100,
    bulge: 100,
    form: 'flat',
    laid: 'once',
    tile: 1,
  },
  blade: {
    lasts: 0.25,
    atHead: 100,
    atTail: 100,
    bulge: 100,
    form: 'flat',
    laid: 'once',
    tile: 1,
  },
  beam: {
    sag: 0,
    jag: 0.12,
    jagSize: 0.25,
    strikes: 0,
    branches: 0,
    branchLength: 0.5,
    speed: 0,
    atHead: 100,
    atTail: 100,
    bulge: 100,
    form: 'flat',
    laid: 'once',
    tile: 1,
  },
};

const LENS = { bloom: { isOn: true, strength: 35, spread: 9 }, exposure: 0 };
const AIR = { fog: { isOn: false, density: 4, height: 3, colour: null } };

/** A look of one drawn shape. */
function lookOf(shape: string): Loose {
  const step: Loose = { kind: 'drawn', muted: false };
  fill(step, {
    shape,
    onto: 'opacity',
    amount: 100,
    softness: 30,
    width: 12,
    points: 5,
    grains: 4,
    change: 0,
    varied: true,
  });
  return { kind: 'own', steps: { order: ['shape'], byId: { shape: step } } };
}

/** Schema 4: looks of ordered steps in place of one drawn shape; a lens and air. */
export function toSchema4(document: Loose): Loose {
  const result = copyOf({ ...document, schema: 4, looks: emptyCollection() }) as Loose;
  const stage = loose(result['stage']);
  result['stage'] = { ...stage, lens: copyOf(LENS), air: copyOf(AIR) };
  for (const layer of itemsOf(result['layers'])) {
    const settings = loose(layer['settings']);
    const shape = loose(loose(settings['appearance.shape'])['base'])['value'];
    delete settings['appearance.shape'];
    const isRibbon = loose(layer['drawn'])['kind'] !== 'sprite';
    // Ribbons were soft toward both edges, whatever their shape.
    layer['look'] = lookOf(isRibbon ? 'band' : typeof shape === 'string' ? shape : 'soft dot');
    layer['inside'] = null;
    fill(layer, LAYER);
    const drawn = loose(layer['drawn']);
    if (drawn['kind'] !== 'sprite') fill(drawn, RIBBONS[drawn['kind'] as string]);
  }
  return result;
}
