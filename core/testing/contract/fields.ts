import {
  CHANNEL_SETTING,
  DRAWN_SETTINGS,
  FORCE_SETTINGS,
  FRONT_SETTINGS,
  LAYER_SETTINGS,
  LINK_SETTINGS,
  RIBBON_SETTINGS,
  STEP_NAMES,
  STEP_SETTINGS,
  SURFACE_SETTINGS,
  type Declaration,
} from '../../document/index.ts';

type Table = Readonly<Record<string, Declaration>>;

const ACTS = { birth: 'at birth', step: 'each step', dress: 'for drawing' } as const;
const READS = {
  age: 'age',
  effectTime: 'effect time',
  stretchTime: 'stretch time',
  speed: 'speed',
  distance: 'distance',
  aimDistance: 'distance to the aim',
  carrierSpeed: 'speed of the carrier',
  along: 'length',
  channel: 'channels',
  dial: 'dials',
} as const;

/** What a setting may be: its unit and limits, or what there is to choose from. */
function valuesOf(declaration: Declaration): string {
  switch (declaration.value) {
    case 'number':
    case 'vector': {
      const { least, most, unit } = declaration;
      const whole = declaration.value === 'number' && declaration.whole ? 'whole ' : '';
      const three = declaration.value === 'vector' ? 'three of ' : '';
      return `${three}${whole}${least} to ${most} ${unit}`.trim();
    }
    case 'choice':
      return declaration.choices.map((choice) => `\`${choice}\``).join(', ');
    case 'switch':
      return '`true`, `false`';
    case 'colour':
      return 'sRGB hex, or a colour of the palette';
  }
}

function defaultOf({ byDefault }: Declaration): string {
  return Array.isArray(byDefault) ? byDefault.join(', ') : String(byDefault);
}

const row = (cells: readonly string[]) => `| ${cells.map((cell) => cell.replaceAll('|', '\\|')).join(' | ')} |`;

function tableText(table: Table): string {
  const rows = Object.entries(table).map(([field, declaration]) =>
    row([
      `\`${field}\``,
      valuesOf(declaration),
      defaultOf(declaration),
      ACTS[declaration.acts],
      declaration.reads.map((kind) => READS[kind]).join(', ') +
        (declaration.refuses ? ` (${declaration.refuses})` : ''),
      declaration.help.replaceAll('\n', ' '),
    ]),
  );
  return [
    row(['field', 'values', 'by default', 'acts', 'shapers read', 'meaning']),
    row(Array<string>(6).fill('---')),
    ...rows,
  ].join('\n');
}

const byKind = (
  title: string,
  tables: Readonly<Record<string, Table>>,
  names: Readonly<Record<string, string>> = {},
) => Object.entries(tables).map(([kind, table]): [string, Table] => [`${title}: \`${names[kind] ?? kind}\``, table]);

/** Every setting of a document as docs/fields.md tells it: its unit, limits, default, when it acts, and what it means. */
export function fieldsText(): string {
  const tables: [string, Table][] = [
    ['Layers', LAYER_SETTINGS],
    ['Channels of layers', { 'channels.ID': CHANNEL_SETTING }],
    ['Links', LINK_SETTINGS],
    ['Release fronts', FRONT_SETTINGS],
    ...byKind('Forces', FORCE_SETTINGS),
    ...byKind('Surfaces', SURFACE_SETTINGS),
    ...byKind('Drawn as', DRAWN_SETTINGS),
    ...byKind('Ribbons', RIBBON_SETTINGS),
    ...byKind('Steps of looks', STEP_SETTINGS),
  ];
  const kinds = Object.entries(STEP_NAMES).map(([kind, name]) => `\`${kind}\` is ${name}`);
  const head = `# Fields

Written by \`npx tsx scripts/publish-schema.ts\` from the declarations (\`core/document/declarations/\`); what a document is as a whole is told by [effect.schema.json](effect.schema.json), and what is made of it by [the runtime contract](runtime.md). A setting is \`{base, shapers, muted}\`; a muted one is as by default. *Acts* says when it is read: at birth, each step, or for drawing alone. On screen ${kinds.join(', ')}.
`;
  return `${head}\n${tables.map(([title, table]) => `## ${title}\n\n${tableText(table)}\n`).join('\n')}`;
}
