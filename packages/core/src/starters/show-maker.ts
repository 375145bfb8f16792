import { typeById } from '../catalogue/types.ts';
import { addDevice, addSound, type Command, connect } from '../change/commands.ts';
import { readPatchLine } from '../change/patch-line.ts';
import { applySteps } from '../change/steps.ts';
import type { Show } from '../model/documents.ts';
import type { Device, DeviceType, Sound } from '../model/rig.ts';

/** Makes a show by the same commands that people use; here a refusal is a bug. */
export class ShowMaker {
  constructor(public show: Show) {}

  do(command: Command | null): this {
    if (!command) throw new Error('the command cannot be made: the sounds do not fit');
    const result = applySteps(this.show, command.steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    this.show = result.value;
    return this;
  }
}

/** The same with gear, cables and sounds in short. */
export class RigMaker extends ShowMaker {
  device(id: string, type: string, name: string, facts: Partial<Device> = {}, params: DeviceType['params'] = {}): this {
    const entry = typeById(type);
    return this.do(
      addDevice(
        this.show,
        id,
        { ...entry.type, params: { ...entry.type.params, ...params } },
        name,
        facts.place ?? entry.place,
        facts,
      ),
    );
  }

  /** `Guitar > Switcher In`, metres. */
  cable(line: string, length: number | null): this {
    const read = readPatchLine(this.show.rig, line);
    if (!read.ok) throw new Error(`${read.reason}: ${line}`);
    return this.do(connect(this.show, `cable-${Object.keys(this.show.rig.cables).length + 1}`, read.plugs, length));
  }

  sound(id: string, name: string, filled: Partial<Sound>): this {
    this.do(addSound(this.show, id, name));
    const old = this.show.rig.sounds[id];
    return this.do({
      command: { name: 'set-sound', facts: { sound: name } },
      steps: Object.entries(filled).map(([field, value]) => ({
        doc: 'rig',
        op: 'set',
        at: ['sounds', id, field],
        value,
        old: old[field as keyof Sound],
      })),
    });
  }
}
