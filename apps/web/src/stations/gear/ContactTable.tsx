import { commands, type Device } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';

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
        <label key={bits} style={{ display: 'flex', gap: 8, fontSize: 13, alignItems: 'center' }}>
          <span className="mono" style={{ flex: 1 }}>
            {[...bits].map((bit) => (bit === '1' ? 'closed' : 'open')).join(', ')}
          </span>
          <select
            className="cellinput"
            style={{ width: 110, border: '1px solid var(--line)' }}
            value={String(value)}
            onChange={(event) =>
              run(commands.setParam(show, device.id, 'table', { ...contacts.table, [bits]: event.target.value }))
            }
          >
            {values.map((controlValue) => (
              <option key={controlValue} value={controlValue}>
                {controlValue}
              </option>
            ))}
          </select>
        </label>
      ))}
    </fieldset>
  );
}
