import { typeById } from '../catalogue/types.ts';
import { addDevice, addSound, type Command } from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { addRigText } from '../entry/add-rig-text.ts';
import { readRigText } from '../entry/read-rig-text.ts';
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

  /** Pieces and cables as people type them; `metres`: the length of each cable that says none. */
  text(text: string, metres: number | null = null): this {
    const read = readRigText(this.show, text);
    const wrong = read.rows.find((row) => row.wrong);
    if (wrong) throw new Error(`${wrong.wrong!.code}: ${wrong.statement.typed}`);
    const rows = read.rows.map((row) => ({
      ...row,
      cables: row.cables.map((cable) => ({ ...cable, length: cable.length ?? metres })),
    }));
    return this.do(addRigText(this.show, { rows }));
  }

  /** `Guitar > Switcher In`, metres. */
  cable(line: string, length: number | null): this {
    const before = Object.keys(this.show.rig.devices).length;
    this.text(line, length);
    if (Object.keys(this.show.rig.devices).length > before) throw new Error(`no such device: ${line}`);
    return this;
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
