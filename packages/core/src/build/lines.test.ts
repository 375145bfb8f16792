import { describe, expect, test } from '@jest/globals';
import { ShowBuilder } from '../testing/build-show.ts';
import { ordinary } from '../testing/rule-rigs.ts';
import { lineEndWords, linesThrough } from './lines.ts';

const words = (type: string, text = 'guitar'): readonly string[] =>
  linesThrough(new ShowBuilder().device('core', type, 'Core').text(text).show.rig).flatMap(({ device, lines }) =>
    lines.map(({ number, label, carries, into, out, wire, is }) =>
      [
        `${device.name} ${number} ${label}`,
        carries,
        lineEndWords(into),
        lineEndWords(out),
        wire ? `${wire.gauge} AWG ${wire.metres} m` : '',
        is,
      ].join(' | '),
    ),
  );

describe('lines that are led through', () => {
  test('a multi-core with signal and power: what is on each line, what is open, what is spare', () => {
    expect(
      words(
        'multi-core-power',
        `guitar > drive > core amp in in
core amp in out > amp input; amp send > core amp send in
supply > core supply 1 in; core supply 1 out > drive; amp > cabinet`,
      ),
    ).toEqual([
      'Core 1 Amp in | signal | Drive out, C02 | Amp input, C03 |  | in use',
      'Core 2 Amp send | signal | Amp send, C04 |  |  | open',
      'Core 3 Amp return | signal |  |  |  | spare',
      'Core 4 Spare | signal |  |  |  | spare',
      'Core 5 Supply 1 | power | Supply out 1, P05 | Drive power, P06 | 20 AWG 8 m | in use',
      'Core 6 Supply 2 | power |  |  | 20 AWG 8 m | spare',
    ]);
  });
  test('a panel with MIDI and mains; both sides of a stereo line', () => {
    expect(words('edge-panel-midi').map((line) => line.split(' | ').slice(0, 2).join(': '))).toEqual([
      'Core 1 Instrument: signal',
      'Core 2 Output: signal',
      'Core 3 MIDI: MIDI',
      'Core 4 Mains: mains',
    ]);
    const stereo = new ShowBuilder().device('panel', 'edge-panel', 'Panel').show;
    const { type } = stereo.rig.devices.panel;
    const wide = { ...stereo.rig.devices.panel, type: { ...type, params: { ...type.params, stereo: ['output'] } } };
    const [{ lines }] = linesThrough({ ...stereo.rig, devices: { panel: wide } });
    expect(lines.map(({ label }) => label)).toEqual(['Instrument', 'Output left', 'Output right']);
  });
  test('none where nothing leads through', () => {
    expect(linesThrough(ordinary().show.rig)).toEqual([]);
  });
});
