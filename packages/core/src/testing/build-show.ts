import { addPart, addSong, layOut } from '../change/commands.ts';
import { emptyShow } from '../starters/empty.ts';
import { RigMaker } from '../starters/show-maker.ts';
import type { Show } from '../model/documents.ts';
import type { Sound } from '../model/rig.ts';

/** Small shows for tests, from nothing unless told otherwise. */
export class ShowBuilder extends RigMaker {
  constructor(show: Show = emptyShow('rig', 'Rig')) {
    super(show);
  }

  cables(...lines: readonly string[]): this {
    for (const line of lines) this.cable(line, 1);
    return this;
  }

  override sound(id: string, name: string | Partial<Sound> = {}, filled: Partial<Sound> = {}): this {
    return typeof name === 'string' ? super.sound(id, name, filled) : super.sound(id, name.name ?? id, name);
  }

  /** Lays the sounds out and casts each as a part of one song, in order. */
  laid(controller = 'switcher'): this {
    this.do(layOut(this.show, controller)).do(addSong(this.show, 'song', 'Song'));
    for (const sound of Object.keys(this.show.rig.sounds))
      this.do(addPart(this.show, `part-${sound}`, 'song', sound, { slot: `slot-${sound}` }));
    return this;
  }
}

/** The four-cable rig of the first page of every manual: guitar, switcher, one drive, a combo, one delay. */
export function fourCable(): ShowBuilder {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('switcher', 'switcher-4', 'Switcher')
    .device('drive', 'drive', 'Drive')
    .device('combo', 'valve-combo', 'Combo')
    .device('delay', 'midi-delay', 'Delay', { channel: 2 })
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables(
      'Guitar > Switcher In',
      'Switcher Send 1 > Drive',
      'Drive > Switcher Return 1',
      'Switcher Send 2 > Combo Input',
      'Combo Send > Switcher Return 2',
      'Switcher Send 3 > Delay',
      'Delay Out > Switcher Return 3',
      'Switcher Out > Combo Return',
      'Combo Loudspeaker > Cabinet',
      'Switcher MIDI out > Delay MIDI in',
      'Switcher Contact 1 > Combo Remote 1',
    );
}

export const lead: Partial<Sound> = {
  name: 'Lead',
  pedals: { drive: 'on', combo: 'on', delay: 'on' },
  wants: { 'combo/channel': 'lead', 'delay/preset': 5 },
};
export const clean: Partial<Sound> = {
  name: 'Clean',
  pedals: { drive: 'off', combo: 'on', delay: 'off' },
  wants: { 'combo/channel': 'clean' },
};
