import { inject, onBeforeUnmount, provide, shallowReactive, type InjectionKey } from 'vue';

/** Something that can be done on the bench, wherever its control is. */
export interface Command {
  readonly id: string;
  /** What it does. */
  readonly label: string;
  /** What it is also looked for by. */
  readonly otherWords: readonly string[];
  /** The keys it has, as in "ctrl+z"; none for one that has only its control. */
  readonly key: string | readonly string[] | null;
  /** Whether its key acts also while something is being typed. */
  readonly whileTyping?: boolean;
  readonly run: () => void;
}

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

const COMMANDS: InjectionKey<Commands> = Symbol('commands');
export function provideCommands(): Commands {
  const commands = new Commands();
  provide(COMMANDS, commands);
  return commands;
}
export const injectCommands = (): Commands => inject(COMMANDS)!;

/** Registers what a component carries out, as long as it stands. */
export function useCommands(commands: readonly Command[], registry = injectCommands()): void {
  onBeforeUnmount(registry.register(commands));
}
