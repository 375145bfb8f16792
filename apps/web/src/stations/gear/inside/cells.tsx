import { TextInput } from '@mantine/core';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';

/** What the lists of a device have in common: something has a name, is removed, and a new one is named. */

/** Names inside a device are this long at most. */
const longest = 120;

export function NameCell({
  what,
  name,
  onRename,
}: {
  readonly what: string;
  readonly name: string;
  readonly onRename: (name: string) => string | null;
}) {
  return (
    <td>
      <InlineField
        label={`Name of the ${what} ${name}`}
        value={name}
        maxLength={longest}
        onCommit={(typed) => (typed === '' ? `A ${what} needs a name.` : onRename(typed))}
      />
    </td>
  );
}

export function RemoveCell({ label, onRemove }: { readonly label: string; readonly onRemove: () => void }) {
  return (
    <td style={{ textAlign: 'right' }}>
      <LinkButton aria-label={`Remove ${label}`} onClick={onRemove}>
        Remove
      </LinkButton>
    </td>
  );
}

export function NewName({
  what,
  placeholder,
  value,
  onType,
}: {
  readonly what: string;
  readonly placeholder: string;
  readonly value: string;
  readonly onType: (name: string) => void;
}) {
  return (
    <TextInput
      className="grow"
      aria-label={`Name of a new ${what}`}
      placeholder={placeholder}
      maxLength={longest}
      value={value}
      onChange={(event) => onType(event.currentTarget.value)}
    />
  );
}
