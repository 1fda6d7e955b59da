import type { Command } from './command';
import { COMMANDS, type CommandId } from './list';
import { inject, onBeforeUnmount, provide, shallowReactive, type InjectionKey } from 'vue';

export type { Command } from './command';
export const keysOf = ({ key }: Command): readonly string[] =>
  key === null ? [] : typeof key === 'string' ? [key] : key;

/** The commands that can be given now. Each is registered by the component that carries it out, as long as that stands. */
export class Commands {
  readonly #all = shallowReactive(new Map<string, Command>());

  /** Adds commands. Returns what takes them away. @throws Error where an id or a key is taken. */
  register(commands: readonly Command[]): () => void {
    for (const command of commands) {
      const { id } = command;
      if (this.#all.has(id)) throw new Error(`there is a command "${id}" already`);
      for (const key of keysOf(command)) {
        const taken = this.byKey(key);
        if (taken) throw new Error(`the key ${key} of "${id}" is that of "${taken.id}"`);
      }
      this.#all.set(id, command);
    }
    return () => commands.forEach(({ id }) => this.#all.delete(id));
  }

  get all(): readonly Command[] {
    return [...this.#all.values()];
  }
  byKey(key: string): Command | undefined {
    return this.all.find((command) => keysOf(command).includes(key));
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
  const commands = new Commands();
  provide(REGISTRY, commands);
  return commands;
}
export const injectCommands = (): Commands => inject(REGISTRY)!;

/** Registers what a component carries out, by the ids of the list, as long as it stands. */
export function useCommands(runs: Partial<Record<CommandId, () => void>>, registry = injectCommands()): void {
  const commands = Object.entries(runs).map(([id, run]) => ({ id, ...COMMANDS[id as CommandId], run }));
  onBeforeUnmount(registry.register(commands));
}
