import type { Control, ControlValue } from '../../../model/anatomy.ts';
import { controlRef } from '../../../model/documents.ts';
import { isHeldByContacts, type WiredDevice, type Wiring } from '../../../model/wiring.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { soundsOf } from '../../queries.ts';

export const channelUnreachable = defineRule({
  meta: {
    id: 'routing/channel-unreachable',
    severity: 'stops-the-show',
    title: 'A channel that the plugged contacts cannot reach',
    why: 'What is plugged into its remote inputs rules the channel, and no combination of those contacts gives the one that is wanted; the unit’s own switch does nothing meanwhile.',
    remedy:
      'Plug in the other contact cable, correct the table of contacts, or unplug all of them and use the unit’s own switch.',
    source: 'the table of contacts as entered for this device',
    messages: {
      unreached: '{sounds}: {device} {control} {wanted} cannot be reached with {plugged} plugged in, only {reached}.',
    },
  },
  check: (context) =>
    context.wiring.devices.flatMap((wired) =>
      wired.anatomy.controls.flatMap((control): Reported<'unreached'>[] => {
        if (!isHeldByContacts(wired, control)) return [];
        const reached = reachedBy(context.wiring, wired, control);
        const ref = controlRef(wired.device.id, control.id);
        const wanting = soundsOf(context).filter(({ wants }) => ref in wants && !reached.has(wants[ref]));
        const values = [...new Set(wanting.map(({ wants }) => wants[ref]))];
        return values.map((wanted) => {
          const sounds = wanting.filter(({ wants }) => wants[ref] === wanted);
          const more = sounds.length - 1;
          return {
            messageId: 'unreached',
            at: { device: wired.device.id, sound: sounds[0].id },
            data: {
              sounds: more > 0 ? `${sounds[0].name} and ${more} more` : sounds[0].name,
              device: wired.device.name,
              control: control.label.toLowerCase(),
              wanted: String(wanted),
              plugged: labels(wired, control, (input) => wired.plugged.has(input)),
              reached: [...reached].join(' and '),
            },
          };
        });
      }),
    ),
});

/** The values that the contacts which lead to a controller can give; an input that none does stays open. */
function reachedBy(
  { contactLinks }: Wiring,
  { device, anatomy }: WiredDevice,
  control: Control,
): ReadonlySet<ControlValue> {
  const { inputs, table } = control.contacts!;
  const mayBe = (input: string, bit: string): boolean => {
    if (contactLinks.some((link) => link.device === device.id && link.input === input)) return true;
    const facts = anatomy.inputs.find(({ id }) => id === input);
    // An open contact; one that flips stays as it comes up.
    return facts?.kind === 'edge' ? facts.powerUp === 'last-state' || bit === String(facts.powerUp) : bit === '0';
  };
  return new Set(
    Object.entries(table).flatMap(([bits, value]) =>
      inputs.every((input, i) => mayBe(input, bits[i])) ? [value] : [],
    ),
  );
}

const labels = ({ jack }: WiredDevice, { contacts }: Control, isMeant: (input: string) => boolean): string =>
  contacts!.inputs
    .filter(isMeant)
    .map((input) => jack.get(input)?.label ?? input)
    .join(' and ');
