import {
  formatAddress,
  refsIn,
  schemaOfValue,
  serves,
  settingSchema,
  settingsIn,
  structuredCopy,
  type Effect,
  type FoundSetting,
  type SetLine,
} from '../document/index.ts';

const nameOf = ({ address }: FoundSetting) => formatAddress(address);

/** What of an effect is set by one plain part of its document, by the id of its line. */
const PLAIN: Readonly<Record<string, (from: Effect, to: Effect) => void>> = {
  seed: (from, to) => void (to.seed = from.seed),
  opening: (from, to) => void (to.stretches.opening = from.stretches.opening),
  hold: (from, to) => void (to.stretches.hold = structuredCopy(from.stretches.hold)),
  closing: (from, to) => void (to.stretches.closing = from.stretches.closing),
  preRoll: (from, to) => void (to.stretches.preRoll = from.stretches.preRoll),
  surround: (from, to) => void (to.stage.surround = from.stage.surround),
};

/** Whether a setting refers to something by an id that the other effect does not have. */
const leadsNowhere = ({ setting, declaration }: FoundSetting, effect: Effect): boolean =>
  refsIn(setting, { schema: schemaOfValue(declaration.value) }).some(({ rule, id }) => !serves(effect, rule, id));

/** Whether a setting may stand where another does: within its limits, and leading nowhere that is not there. */
const fits = (theirs: FoundSetting, own: FoundSetting, effect: Effect): boolean =>
  settingSchema(own.declaration).safeParse(theirs.setting).success && !leadsNowhere(theirs, effect);

/**
 * Takes one line of another effect over, in a draft: a setting that both have, a stretch, the seed, the surround. Returns
 * false, and changes nothing, where a line is of something that this effect does not have, or refers to what it has not.
 */
export function takeLine(draft: Effect, other: Effect, id: SetLine['id']): boolean {
  const plain = PLAIN[id];
  if (plain) {
    plain(other, draft);
    return true;
  }
  const find = (effect: Effect) => settingsIn(effect).find((found) => nameOf(found) === id);
  const [theirs, own] = [find(other), find(draft)];
  if (!theirs || !own || !fits(theirs, own, draft)) return false;
  Object.assign(own.setting, structuredCopy(theirs.setting));
  return true;
}

/** The ids of lines that can be taken over from another effect. */
export function takable(own: Effect, other: Effect): ReadonlySet<string> {
  const here = new Map(settingsIn(own).map((found) => [nameOf(found), found]));
  const settings = settingsIn(other).filter((found) => {
    const mine = here.get(nameOf(found));
    return mine && fits(found, mine, own);
  });
  return new Set([...Object.keys(PLAIN), ...settings.map(nameOf)]);
}
