import type { CatalogueEntry } from '../catalogue/types.ts';
import { type Anatomy, type Jack, socketOf } from '../model/anatomy.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { jacksOf } from '../model/jacks.ts';
import type { DeviceType } from '../model/rig.ts';
import { freshId, freshName } from '../model/names.ts';

/** A device of the rig, or one that the text adds to it. */
export interface DraftDevice {
  readonly id: string;
  readonly name: string;
  /** The name as it is compared, and its words. */
  readonly said: string;
  readonly words: readonly string[];
  readonly anatomy: Anatomy;
}

const named = (name: string): Pick<DraftDevice, 'name' | 'said' | 'words'> => {
  const said = name.toLowerCase();
  return { name, said, words: said.split(/\s+/) };
};

/** An anatomy with the jacks by which it takes and gives power. */
function withPower(type: DeviceType): Anatomy {
  if (!type.power) return anatomyOf(type);
  let anatomy = powered.get(type);
  if (!anatomy) powered.set(type, (anatomy = { ...anatomyOf(type), jacks: jacksOf(type) }));
  return anatomy;
}
const powered = new WeakMap<DeviceType, Anatomy>();

/** The rig as it grows while a text is read: devices, and jacks that hold a plug already. */
export class Draft {
  readonly devices: DraftDevice[];
  private readonly ids: Record<string, true> = {};
  private readonly taken = new Map<string, string>();
  /** Jacks that the text plugs, in its order. */
  private readonly plugged: string[] = [];
  private cables = 0;
  /** Devices in the order in which they were spoken of, the last one last. */
  private readonly spoken: DraftDevice[] = [];

  constructor(
    readonly show: Show,
    /** The types that a name may mean. */
    readonly library: readonly CatalogueEntry[],
  ) {
    this.devices = inOrder(show.rig.devices).map(({ id, name, type }) => ({
      id,
      ...named(name),
      anatomy: withPower(type),
    }));
    for (const { id } of this.devices) this.ids[id] = true;
    for (const cable of inOrder(show.rig.cables))
      for (const { device, jack } of cable.plugs) this.taken.set(`${device}/${jack}`, cable.id);
  }

  /** What the plugs of one statement are known by. */
  freshCable(): string {
    this.cables += 1;
    return `new-${this.cables}`;
  }

  add(entry: CatalogueEntry, name: string): DraftDevice {
    const device: DraftDevice = {
      id: freshId(name, this.ids, 'device'),
      ...named(
        freshName(
          name,
          this.devices.map((other) => other.name),
        ),
      ),
      anatomy: withPower(entry.type),
    };
    this.devices.push(device);
    this.ids[device.id] = true;
    return device;
  }

  /** Gives back what forgets all that was begun since: what a statement that is not understood had added. */
  mark(): () => void {
    const [devices, spoken, plugged] = [this.devices.length, this.spoken.length, this.plugged.length];
    return () => {
      for (const { id } of this.devices.splice(devices)) delete this.ids[id];
      this.spoken.length = spoken;
      for (const jack of this.plugged.splice(plugged)) this.taken.delete(jack);
    };
  }

  /** Whether a plug can go in; into a socket that two jacks share, one of the cable that is in it. */
  isFree(device: DraftDevice, jack: Jack, cable?: string): boolean {
    if (this.taken.has(`${device.id}/${jack.id}`)) return false;
    const mate = socketOf(device.anatomy.jacks, jack).find((other) => other.id !== jack.id);
    const inSocket = mate && this.cableAt(device, mate);
    return inSocket === undefined || inSocket === cable;
  }
  cableAt = (device: DraftDevice, jack: Jack): string | undefined => this.taken.get(`${device.id}/${jack.id}`);
  plug(device: DraftDevice, jack: string, cable: string): void {
    const at = `${device.id}/${jack}`;
    if (!this.taken.has(at)) this.plugged.push(at);
    this.taken.set(at, cable);
  }

  speakOf(device: DraftDevice): void {
    this.spoken.push(device);
  }
  /** Those spoken of, the last first; then the others of the rig, the last first. */
  recent(): readonly DraftDevice[] {
    return [...new Set([...this.spoken.toReversed(), ...this.devices.toReversed()])];
  }
}
