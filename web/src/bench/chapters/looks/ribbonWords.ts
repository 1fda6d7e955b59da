import type { NumberSetting, Ribbon } from '@jinx/core/document';

const always = ({ base, shapers, muted }: NumberSetting, value: number): boolean =>
  !muted && shapers.order.length === 0 && base.kind === 'fixed' && base.value === value;

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
export const WITHOUT_STEPS: Record<'sprite' | 'mesh' | 'body' | 'other', string> = {
  sprite: 'each particle is a plain square of its colour',
  mesh: 'each mesh has its own colours, tinted by those of its particle',
  body: 'the whole skin has the colour of its particle',
  other: 'it has the plain colour of its particles',
};
