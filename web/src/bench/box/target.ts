import type { ReadyKind } from '@jinx/core/building';
import type {
  DrawnAs,
  Effect,
  Force,
  ForceKind,
  Id,
  Layer,
  Setting,
  SettingAddress,
  SourceKind,
  StepKind,
} from '@jinx/core/document';
import type { AssetSummary } from '../../api';
import type { ChapterName, FitTarget } from '@jinx/core/editing';
import type { ForceAddress } from '../chapters/changeForce';
import type { Findable } from '../pick/finder';

/** What an entry of the box does when it is taken. */
export interface Act {
  /** How it reads, as in "rate: 35/s". */
  readonly text: string;
  readonly run: (tools: Tools) => void;
}
/** Something the box can find: a setting, something to add, a command, a layer, a page. */
export interface Target extends Findable {
  readonly id: string;
  /** What it is, as in "Motes · Births". */
  readonly detail: string;
  readonly help?: string;
  /** What the key does that it has beside the box. */
  readonly key?: string;
  /** Choosing it changes nothing but the document: it can be seen before it is chosen. */
  readonly previews?: boolean;
  readonly run: (tools: Tools) => void;
  /** Reads a value that was typed after its name. @throws an error with a sentence where it takes none like it. */
  readonly take?: (text: string, tools: Tools) => Act;
}

/** What the box works with. */
export interface Tools {
  readonly effect: () => Effect;
  readonly chosenId: () => Id;
  readonly chosenIds: () => readonly Id[];
  readonly newId: () => Id;
  /** Seconds that a particle of the chosen layer lives. */
  readonly life: () => number;
  readonly change: (label: string, recipe: (draft: Effect) => void) => void;
  /** Changes every chosen layer. */
  readonly changeLayers: (label: string, recipe: (layer: Layer, id: Id) => void) => void;
  /** Changes a setting in every chosen layer that has it. */
  readonly changeSetting: (
    address: SettingAddress,
    label: string,
    recipe: (setting: Setting, draft: Effect) => void,
  ) => void;
  /** Changes a force, in every chosen layer that has one that answers to it; or removes it. */
  readonly changeForce: (label: string, address: ForceAddress, recipe: (force: Force) => void) => void;
  readonly removeForce: (address: ForceAddress) => void;
  /** Mutes or removes a step of the chosen layer's look. */
  readonly muteStep: (id: Id, muted: boolean) => void;
  readonly removeStep: (id: Id) => void;
  /** Goes to a chapter, and to a chip of it by its address or by what it is called. */
  readonly leadTo: (chapter: ChapterName, chip?: string | null, label?: string) => void;
  /** Puts the focus on a control of the bench by what it is called. */
  readonly focus: (label: string) => void;
  /** Shows what is set for the effect as a whole. */
  readonly showWhole: () => void;
  /** Adds a part of a kind. Returns its id where it has one. */
  readonly add: (what: Addable) => Id | null;
  /** Lets the chosen layer show a picture of the project. */
  readonly showPicture: (asset: Pick<AssetSummary, 'hash' | 'name'>) => void;
  /** Gives the chosen layers' sources the place, turn and size of something else. */
  readonly fit: (target: FitTarget) => void;
  readonly command: (id: string) => void;
}

/** What can be added to the chosen layer, or to the effect. */
export type Addable =
  | { readonly kind: 'force'; readonly of: ForceKind }
  | { readonly kind: 'step'; readonly of: StepKind }
  | { readonly kind: 'source'; readonly of: SourceKind }
  | { readonly kind: 'drawn'; readonly of: DrawnAs['kind'] }
  | { readonly kind: 'surface'; readonly of: string }
  | { readonly kind: 'ready'; readonly of: ReadyKind }
  | { readonly kind: 'link'; readonly of: Id | null }
  | { readonly kind: 'burst' }
  | { readonly kind: 'layer' };
