import { emptyAnatomy, type Literal } from '../anatomy.ts';
import type { Archetype } from './archetype.ts';
import { problem } from '../../units/problem.ts';
import { asLeft, signalIn, signalOut, value } from './parts.ts';

/** Bit patterns of `count` inputs in the order 00, 01, 10, 11: the first input is the leftmost bit. */
export const bitPatterns = (count: number): string[] => Array.from({ length: 2 ** count }, (_, i) => i.toString(2).padStart(count, '0'));

/** A preamp per channel, a normalled series loop, a power amp; channels chosen by contacts, by its own switch or by hand. */
export const amp: Archetype = {
  id: 'amp',
  params: {
    channels: { kind: 'words', default: ['clean', 'lead'], label: 'Channels', max: 8 },
    contactInputs: { kind: 'integer', min: 0, max: 3, default: 1, label: 'Contact inputs' },
    inputKind: { kind: 'choice', values: ['level', 'edge'], default: 'level', label: 'Inputs answer to' },
    inputsDo: { kind: 'choice', values: ['hold', 'write'], default: 'hold', label: 'Inputs' },
    table: {
      kind: 'data',
      default: null,
      label: 'Bits to channel',
      check: (data, at) =>
        data !== null && typeof data === 'object' && !Array.isArray(data) && Object.values(data).every((word) => typeof word === 'string')
          ? []
          : [problem(at, 'wrong-type', { expected: 'a table from bits to channel' })],
    },
    footswitch: { kind: 'boolean', default: true, label: 'Own channel switch' },
    remembersChannel: { kind: 'boolean', default: false, label: 'Comes up on the channel it was left on' },
  },
  expand: (p) => {
    const channels = p.words('channels');
    const inputs = Array.from({ length: p.int('contactInputs') }, (_, i) => `remote-${i + 1}`);
    const patterns = bitPatterns(inputs.length);
    const given = p.data<Record<string, Literal> | null>('table') ?? {};
    const table = Object.fromEntries(patterns.map((bits, i) => [bits, given[bits] ?? channels[Math.min(i, channels.length - 1)]]));
    return {
      ...emptyAnatomy,
      jacks: [
        signalIn('in', 'Input'),
        signalOut('send', 'Send'),
        signalIn('return', 'Return'),
        { ...signalOut('speaker', 'Loudspeaker'), speaker: true },
        ...inputs.map((id, i) => ({ id, label: `Remote ${i + 1}`, kind: 'contact-in' as const })),
      ],
      controls: [
        {
          id: 'channel',
          label: 'Channel',
          domain: { kind: 'choice', values: channels },
          scope: 'global',
          powerUp: p.yes('remembersChannel') ? asLeft : value(channels[0]),
          owner: inputs.length > 0 ? 'programmed' : 'foot',
          weight: 'channel',
          ...(inputs.length > 0 ? { contacts: { inputs, table, mode: p.word('inputsDo') as 'hold' | 'write' } } : {}),
        },
      ],
      sections: [
        ...channels.map((channel) => ({
          id: `preamp ${channel}`,
          label: `Preamp, ${channel}`,
          from: 'in',
          to: '*tone',
          active: true,
          when: { controls: { channel: [channel] } },
        })),
        { id: 'to-send', label: 'Send', from: '*tone', to: 'send', active: false },
        { id: 'loop-normal', label: 'Loop closed', from: '*tone', to: '*drive', active: false, when: { plugs: { return: false } } },
        { id: 'from-return', label: 'Return', from: 'return', to: '*drive', active: false, when: { plugs: { return: true } } },
        { id: 'power', label: 'Power amp', from: '*drive', to: 'speaker', active: true },
      ],
      inputs: inputs.map((id) => ({ id, kind: p.word('inputKind') as 'level' | 'edge', powerUp: 0 as const })),
      switches: p.yes('footswitch') ? [{ id: 'channel', label: 'Channel switch', does: [{ next: 'channel', wrap: true }] }] : [],
    };
  },
};
