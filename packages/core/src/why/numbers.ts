import type { PresetFacts } from '../model/anatomy.ts';
import type { Device } from '../model/rig.ts';
import type { Evidence } from './evidence.ts';

const panels = 'MIDI 1.0 numbers programs from 0; what the panel shows is the maker’s choice';

/** What the panel shows for a preset that is sent as `wire`. */
export const presetOnPanel = ({ name, firstPresetNumber }: Device, wire: number): Evidence => ({
  of: `Preset of ${name} on its panel`,
  value: String(wire + firstPresetNumber),
  inputs: [
    ['number as sent', String(wire)],
    ['the panel counts from', String(firstPresetNumber)],
  ],
  formula: 'number as sent + what the panel counts from',
  source: panels,
  rests: 'entered',
});

/** How a preset is sent: its number over all banks, as bank and program. */
export function presetOnWire({ name, firstPresetNumber }: Device, facts: PresetFacts, wire: number): Evidence {
  const { bankSize, scheme } = facts;
  const bank = Math.floor(wire / bankSize);
  return {
    of: `Preset of ${name} as sent`,
    value: String(wire),
    inputs: [
      ['number on its panel', String(wire + firstPresetNumber)],
      ['the panel counts from', String(firstPresetNumber)],
      ['presets in a bank', String(bankSize)],
      ['bank select', scheme === 'none' ? 'none' : String(bank)],
      ['program change', String(wire % bankSize)],
    ],
    formula: 'number on its panel − what the panel counts from = bank × bank size + program',
    source: 'MIDI 1.0, program change and bank select',
    rests: 'entered',
  };
}
