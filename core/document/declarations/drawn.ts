import {
  alsoCalled,
  choice,
  LIFE,
  NONE,
  number,
  SPREAD,
  type Declaration,
  type NumberDeclaration,
} from '../../settings/index.ts';

const each = (
  name: string,
  help: string,
  unit: NumberDeclaration['unit'],
  [least, most, byDefault]: readonly [least: number, most: number, byDefault: number],
  zero?: string,
) =>
  number('drawn', 'dress', name, help, {
    unit,
    least,
    most,
    byDefault,
    bases: SPREAD,
    reads: LIFE,
    ...(zero === undefined ? {} : { zero }),
  });

/** What is drawn in place of a sprite: a mesh, a light, bent air, or the skin of a thing on the stage. */
export const DRAWN_SETTINGS = {
  mesh: alsoCalled(
    {
      roughness: each('roughness', 'How dull it is where it is lit.', '%', [2, 100, 70]),
      metalness: each('metalness', 'How much it is like metal where it is lit.', '%', [0, 100, 0]),
      otherShape: each(
        'other shape',
        'How far it has taken the other shape that its file brings along (its first morph target).',
        '%',
        [-200, 200, 0],
      ),
      vertexColours: {
        value: 'switch',
        chapter: 'drawn',
        acts: 'dress',
        name: 'own colours',
        help: 'Whether the colours and the picture that the mesh brings along are shown.',
        reads: NONE,
        byDefault: true,
      },
      shadow: {
        value: 'switch',
        chapter: 'drawn',
        acts: 'dress',
        name: 'shadow',
        help: 'Whether it darkens the ground under it.',
        reads: NONE,
        byDefault: false,
      },
    },
    {
      roughness: ['smoothness', 'glossiness', 'dull'],
      metalness: ['metallic', 'metal'],
      otherShape: ['morph', 'morph target', 'blend shape', 'shape key'],
      vertexColours: ['vertex colors', 'mesh colors'],
      shadow: ['cast shadows', 'shadows'],
    },
  ),
  light: alsoCalled(
    {
      reach: each('reach', 'How far it lights.', 'm', [0.01, 100, 2.5]),
      surfaces: each('on surfaces', 'How strongly it lights what is solid or lit.', '×', [0, 100, 1]),
      fog: each('in fog', 'How strongly it lights the fog about it.', '×', [0, 100, 1]),
    },
    {
      reach: ['light radius', 'attenuation', 'light range'],
      surfaces: ['light intensity'],
      fog: ['volumetric', 'light in fog'],
    },
  ),
  haze: alsoCalled(
    {
      strength: each('strength', 'How far what is behind is shifted, as a share of the size.', '%', [-100, 100, 8]),
      inner: each('inner edge', 'Where the bent ring begins, as a share of the radius.', '%', [0, 100, 0]),
      outer: each('outer edge', 'Where the bent ring ends, as a share of the radius.', '%', [0, 100, 100]),
      softness: each('softness', 'How softly both edges of the ring run out.', '%', [1, 100, 60]),
      tinted: each('tinted', 'How far its colour tints what is seen through it.', '%', [0, 100, 0]),
      bends: choice(
        'drawn',
        'dress',
        'bends',
        'Whether it bends outward from its middle, in moving waves, or as a normal map says.',
        ['outward', 'in waves', 'by a picture'],
        'outward',
      ),
    },
    {
      strength: ['distortion strength', 'refraction amount'],
      bends: ['refraction mode'],
      softness: ['distortion falloff'],
    },
  ),
  body: alsoCalled(
    {
      stands: choice(
        'drawn',
        'dress',
        'stands',
        'Whether it is drawn over the body, or in place of it.',
        ['over it', 'in its place'],
        'over it',
      ),
      offset: each('distance', 'How far from the skin it stands.', 'm', [-1, 1, 0.004]),
      edge: each('glowing edge', 'How wide the border glows where a front cuts it.', 'm', [0, 2, 0.02], 'no edge'),
      glow: each('glow', 'How bright that border glows.', '×', [0, 100, 4]),
      colour: {
        value: 'colour',
        chapter: 'drawn',
        acts: 'dress',
        name: 'edge colour',
        help: 'Colour of the border where a front cuts the body.',
        reads: LIFE,
        byDefault: '#ff9a3c',
      },
    },
    { stands: ['override material', 'overlay'], offset: ['shell offset', 'push out'], edge: ['cut edge'] },
  ),
} as const satisfies Record<string, Record<string, Declaration>>;
