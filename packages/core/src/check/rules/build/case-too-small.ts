import { doesNotGoIn, filledCases } from '../../../pack/cases.ts';
import { defineRule } from '../../define-rule.ts';

export const caseTooSmall = defineRule({
  meta: {
    id: 'build/case-too-small',
    severity: 'fix-before-load-in',
    title: 'A piece that does not go into its case',
    why: 'What does not go in travels loose, or stays at home.',
    remedy: 'Put it into a larger case, or measure both.',
    source: 'outlines and outer sizes as entered, whichever way the piece is turned',
    messages: { small: '{device}, {size} mm, does not go into {case}, which is {outer} mm outside.' },
  },
  check: ({ show: { rig } }) =>
    filledCases(rig).flatMap((filled) =>
      doesNotGoIn(filled).map((device) => {
        const { width, depth, height } = device.type.body!;
        return {
          messageId: 'small' as const,
          at: { device: device.id },
          data: {
            device: device.name,
            size: [width, depth, height].join(' × '),
            case: filled.case.name,
            outer: filled.case.size!.join(' × '),
          },
        };
      }),
    ),
});
