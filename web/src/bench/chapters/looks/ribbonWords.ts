import { curveThrough, listed, withItem, withoutItem, type NumberSetting, type Ribbon } from '@jinx/core/document';

const always = ({ base, shapers, muted }: NumberSetting, value: number): boolean =>
  !muted && shapers.order.length === 0 && base.kind === 'fixed' && base.value === value;

type Points = readonly (readonly [number, number])[];

/** Widths from head to tail, to begin from. */
export const ALONG_WIDTHS: Readonly<Record<string, Points>> = {
  'as wide all along': [],
  'to a point at the tail': [
    [0, 1],
    [1, 0],
  ],
  'to a point at the head': [
    [0, 0],
    [1, 1],
  ],
  'as an arrowhead': [
    [0, 0],
    [0.18, 1.5],
    [0.3, 0.6],
    [1, 0],
  ],
  'wide behind the tip': [
    [0, 0.15],
    [0.15, 1],
    [1, 0],
  ],
  'to a point at both ends': [
    [0, 0],
    [0.5, 1],
    [1, 0],
  ],
};

/** Opacities from head to tail, to begin from. */
export const ALONG_OPACITIES: Readonly<Record<string, Points>> = {
  'as opaque all along': [],
  'out to the tail': [
    [0, 1],
    [1, 0],
  ],
  'out to both ends': [
    [0, 0],
    [0.3, 1],
    [1, 0],
  ],
  'late, near the tail': [
    [0, 1],
    [0.6, 1],
    [1, 0],
  ],
};

/** Shapes a number of a ribbon from its head to its tail in place of how it was; none of the points: not at all. */
export function shapeAlong(setting: NumberSetting, points: Points, newId: string): void {
  const found = listed(setting.shapers).find(({ item }) => item.reads.kind === 'along');
  const id = found?.id ?? newId;
  if (points.length === 0) {
    setting.shapers = withoutItem(setting.shapers, id);
    return;
  }
  const mapping = { kind: 'curve' as const, curve: curveThrough(points) };
  const kept = found?.item ?? {
    reads: { kind: 'along' as const },
    combine: 'multiply' as const,
    amount: 1,
    muted: false,
  };
  setting.shapers = withItem(setting.shapers, id, { ...kept, mapping }, found && setting.shapers.order.indexOf(id));
}

/** The sentences of a ribbon, in which {name} is one of its settings. */
export function ribbonSentences({ kind, settings }: Ribbon): readonly string[] {
  switch (kind) {
    case 'trail':
      return [
        'A point is laid every {every}, by the clock {seconds}, and stays for {lasts}',
        'Laid points keep {drift} of the velocity and {feels} forces. When its particle dies the trail {ends}. At most {most} lie at once',
      ];
    case 'strand': {
      const strands = always(settings.strands, 1) ? 'strand' : 'strands';
      const cut = always(settings.longest, 0) ? '{longest}' : 'cut at gaps over {longest}';
      return [`Strung on {strands} ${strands} in the order of their births, ${cut}`];
    }
    case 'blade':
      return ['While a particle lives, what the blade has passed over stays for {lasts}'];
    case 'beam':
      return [
        'While a particle lives it sags by {sag}, and is thrown aside by {jag} every {jagSize}, striking anew {strikes}',
        'It has {branches} of up to {branchLength}, and reaches out at {speed}',
      ];
  }
}

/** What a layer without any step of a look shows, as what it is drawn as. */
export const WITHOUT_STEPS: Record<'sprite' | 'mesh' | 'body' | 'haze' | 'other', string> = {
  sprite: 'each particle is a plain square of its colour',
  mesh: 'each mesh has its own colours, tinted by those of its particle',
  body: 'the whole skin has the colour of its particle',
  haze: 'it bends alike all along its ring, without a tint of its own',
  other: 'it has the plain colour of its particles',
};
