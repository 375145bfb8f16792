import { commands, type Device } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';

/** Which contacts, closed or open, choose which value of a control. */
export function ContactTable({ device }: { readonly device: Device }) {
  const { show, run, wiring } = useShow();
  const wired = wiring.device.get(device.id)!;
  const control = wired.anatomy.controls.find((control) => control.contacts)!;
  const contacts = control.contacts!;
  const values = control.domain.kind === 'choice' ? control.domain.values : [];
  const from = (input: string) => {
    const link = wiring.contactLinks.find(
      (contactLink) => contactLink.device === device.id && contactLink.input === input,
    );
    return link
      ? `${show.rig.devices[link.controller].name} ${wiring.device.get(link.controller)!.jack.get(link.contact)!.label}`
      : 'nothing plugged in';
  };
  return (
    <fieldset>
      <legend>{control.label} by contacts</legend>
      {contacts.inputs.map((input) => (
        <span key={input} className="soft" style={{ fontSize: 12 }}>
          {wired.jack.get(input)!.label}: {from(input)}
        </span>
      ))}
      {Object.entries(contacts.table).map(([bits, value]) => (
        <div key={bits} style={{ display: 'flex', gap: 8, fontSize: 13, alignItems: 'center' }}>
          <span className="mono" style={{ flex: 1 }}>
            {contactWords(bits)}
          </span>
          <CellSelect
            bordered
            label={`${control.label} with the contacts ${contactWords(bits)}`}
            value={String(value)}
            choices={values.map((each) => ({ value: String(each), label: String(each) }))}
            onPick={(picked) => run(commands.setParam(show, device.id, 'table', { ...contacts.table, [bits]: picked }))}
          />
        </div>
      ))}
    </fieldset>
  );
}

const contactWords = (bits: string): string => [...bits].map((bit) => (bit === '1' ? 'closed' : 'open')).join(', ');
