import { type Command, type Finding, inOrder, type Show, type Sound, type Tracer, type Wiring } from '@yunta/core';
import type { JudgedShow } from './judged-show.ts';
import { Resolver } from './resolved.ts';
import type { ShowStore } from './store.ts';

/**
 * The open rig as every station needs it. What is found, and what is saved, change at other times: they have hooks of
 * their own.
 */
export interface OpenShow {
  readonly id: string;
  readonly store: ShowStore;
  readonly judging: JudgedShow;
  readonly show: Show;
  readonly run: (command: Command | null) => boolean;
  /** The same for a field: why the edit cannot be made, or null. */
  readonly attempt: (command: Command | null) => string | null;
  readonly wiring: Wiring;
  readonly tracer: Tracer;
  /** The selected sound, followed by every station. */
  readonly sound: Sound | null;
  readonly selectSound: (id: string) => void;
  /** The selected device, shown in the inspector. */
  readonly device: string | null;
  readonly selectDevice: (id: string | null) => void;
  /** Selects what a finding is about. */
  readonly selectFinding: (finding: Finding) => void;
  readonly fix: (finding: Finding) => void;
}

/** What of the open rig is selected, and remembers it for the next time. */
export interface SelectionStorage {
  readonly load: () => string | null;
  readonly save: (sound: string) => void;
  readonly loadVariant: () => string | null;
  /** Null: the rig itself. */
  readonly saveVariant: (variant: string | null) => void;
}

/**
 * The open rig with what is selected. Its readers follow it themselves, so that an edit is drawn only where somebody
 * reads it, and nobody looks through the whole page for who does.
 */
export class OpenRig {
  private readonly resolver = new Resolver();
  private readonly listeners = new Set<() => void>();
  private sound: string | null;
  private device: string | null = null;
  private last: OpenShow | null = null;

  constructor(
    readonly id: string,
    readonly store: ShowStore,
    readonly judging: JudgedShow,
    private readonly keeping: SelectionStorage,
  ) {
    this.sound = keeping.load();
    store.chooseVariant(keeping.loadVariant());
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    const leave = this.store.subscribe(listener);
    return () => {
      this.listeners.delete(listener);
      leave();
    };
  };

  /** The same object as long as nothing that it holds has changed. */
  get = (): OpenShow => {
    const { show } = this.store.get();
    const { sounds, devices } = show.rig;
    const sound =
      (this.sound !== null && Object.hasOwn(sounds, this.sound) ? sounds[this.sound] : inOrder(sounds)[0]) ?? null;
    const device = this.device !== null && Object.hasOwn(devices, this.device) ? this.device : null;
    if (this.last?.show === show && this.last.sound === sound && this.last.device === device) return this.last;
    const { id, store, judging, run, attempt, selectSound, selectDevice, selectFinding, fix } = this;
    this.last = {
      id,
      store,
      judging,
      show,
      ...this.resolver.resolve(show.rig),
      sound,
      device,
      run,
      attempt,
      selectSound,
      selectDevice,
      selectFinding,
      fix,
    };
    return this.last;
  };

  /** Looks at a variant of the rig, or (null) at the rig itself. */
  chooseVariant = (id: string | null): void => {
    this.store.chooseVariant(id);
    this.keeping.saveVariant(id);
  };

  private run = (command: Command | null): boolean => this.store.run(command);

  private attempt = (command: Command | null): string | null => this.store.attempt(command);

  private selectSound = (id: string): void => {
    this.sound = id;
    this.keeping.save(id);
    this.tell();
  };

  private selectDevice = (id: string | null): void => {
    this.device = id;
    this.tell();
  };

  private selectFinding = ({ at }: Finding): void => {
    if (at.sound) this.selectSound(at.sound);
    if (at.device) this.selectDevice(at.device);
  };

  private fix = (finding: Finding): void => {
    if (finding.fix)
      this.store.run({ command: { name: 'fix', facts: { label: finding.fix.label } }, steps: finding.fix.steps });
  };

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}
