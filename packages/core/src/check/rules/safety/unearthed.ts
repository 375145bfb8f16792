import { mainsChain } from '../../../power/mains.ts';
import { defineRule } from '../../define-rule.ts';

export const unearthed = defineRule({
  meta: {
    id: 'safety/unearthed',
    severity: 'stops-the-show',
    title: 'A device without its protective earth',
    why: 'A device of class I is safe only while its protective earth is joined: without it a fault puts the mains on its case, and on the strings. Hum is never a reason to lift it.',
    remedy:
      'An earthed lead and an earthed outlet, tested. Against hum: isolate the signal, never the earth. A licensed electrician and the local code have the last word.',
    source: 'IEC 61140, class I (from memory)',
    messages: { lifted: '{device} needs the protective earth, and hangs on {on}, which has none.' },
  },
  check: ({ show: { rig } }) => {
    const chain = mainsChain(rig);
    return chain
      .filter(({ device, isUnearthed }) => isUnearthed && device.type.power?.mains?.earthed === true)
      .map(({ device, into }) => ({
        messageId: 'lifted' as const,
        at: { device: device.id },
        data: { device: device.name, on: into?.name ?? 'the wall' },
      }));
  },
});
