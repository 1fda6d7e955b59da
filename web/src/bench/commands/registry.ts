import type { Command } from './command';
import { isLetter, ownKeys, useKeyWishes, type KeyWishes } from './keys';
import { COMMANDS, type CommandId } from './list';
import { inject, onBeforeUnmount, provide, shallowReactive, type InjectionKey } from 'vue';

export type { Command } from './command';

/** The commands that can be given now. Each is registered by the component that carries it out, as long as that stands. */
export class Commands {
  readonly #all = shallowReactive(new Map<string, Command>());
  readonly wishes: KeyWishes | null;

  /** With `wishes`, keys are those that were chosen in place of the commands' own. */
  constructor(wishes: KeyWishes | null = null) {
    this.wishes = wishes;
  }

  /** Adds commands. Returns what takes them away. @throws Error where an id or a key is taken. */
  register(commands: readonly Command[]): () => void {
    for (const command of commands) {
      const { id } = command;
      if (this.#all.has(id)) throw new Error(`there is a command "${id}" already`);
      for (const key of ownKeys(command)) {
        const taken = this.all.find((other) => ownKeys(other).includes(key));
        if (taken) throw new Error(`the key ${key} of "${id}" is that of "${taken.id}"`);
      }
      this.#all.set(id, command);
    }
    return () => commands.forEach(({ id }) => this.#all.delete(id));
  }

  get all(): readonly Command[] {
    return [...this.#all.values()];
  }
  /** The keys that a command has now. */
  keysOf(id: string): readonly string[] {
    const keys =
      this.wishes?.keys.value[id] ?? ownKeys(COMMANDS[id as CommandId] ?? this.#all.get(id) ?? { key: null });
    return this.wishes?.hasLetters.value === false ? keys.filter((key) => !isLetter(key)) : keys;
  }
  byKey(key: string): Command | undefined {
    return this.all.find(({ id }) => this.keysOf(id).includes(key));
  }
  /** Gives a command a key in place of those it has, and takes it from the command that had it. Returns that one. */
  setKey(id: string, key: string | null): Command | undefined {
    if (!this.wishes) return undefined;
    const had = key === null ? undefined : this.byKey(key);
    const keys = { ...this.wishes.keys.value };
    if (had && had.id !== id) keys[had.id] = this.keysOf(had.id).filter((other) => other !== key);
    keys[id] = key === null ? [] : [key];
    this.wishes.keys.value = keys;
    return had?.id === id ? undefined : had;
  }
  /** Carries a command out, if it can be given. Returns whether it could. */
  run(id: string): boolean {
    const command = this.#all.get(id);
    command?.run();
    return command !== undefined;
  }
}

const REGISTRY: InjectionKey<Commands> = Symbol('commands');
export function provideCommands(): Commands {
  const commands = new Commands(useKeyWishes());
  provide(REGISTRY, commands);
  return commands;
}
export const injectCommands = (): Commands => inject(REGISTRY)!;

/** Registers what a component carries out, by the ids of the list, as long as it stands. */
export function useCommands(runs: Partial<Record<CommandId, () => void>>, registry = injectCommands()): void {
  const commands = Object.entries(runs).map(([id, run]) => ({ id, ...COMMANDS[id as CommandId], run }));
  onBeforeUnmount(registry.register(commands));
}
