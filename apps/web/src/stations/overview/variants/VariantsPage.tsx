import { Button, TextInput } from '@mantine/core';
import { addVariant, freshId, inOrder, removeVariant, setVariant, type Variant } from '@yunta/core';
import { useState } from 'react';
import { useRig, useSaved, useShow } from '../../../api/rig.tsx';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { StationHead } from '../../../ui/StationHead.tsx';
import { changeWords } from '../../../ui/change-words.ts';
import { Conflicts } from './Conflicts.tsx';
import { Moves } from './Moves.tsx';
import { SideBySide } from './SideBySide.tsx';

/** The rig as it is tonight: without the amp, in mono, with a broken piece. What is otherwise, and what is moved. */
export function VariantsPage({ onClose }: { readonly onClose: () => void }) {
  const { base } = useSaved();
  const variants = inOrder(base.rig.variants ?? {});
  return (
    <>
      <StationHead
        name="Variants"
        startAt={['[aria-label="Name of a new variant"]']}
        question="What is this rig tonight, and what do I move?"
      >
        <Button variant="default" onClick={onClose}>
          Back to the overview
        </Button>
      </StationHead>
      <div className="sheet">
        <NewVariant variants={variants} />
        <VariantTable variants={variants} />
      </div>
      <Conflicts />
      <Moves />
      <SideBySide />
    </>
  );
}

function NewVariant({ variants }: { readonly variants: readonly Variant[] }) {
  const { store } = useShow();
  const { base } = useSaved();
  const rig = useRig();
  const [name, setName] = useState('');
  const [like, setLike] = useState('');
  const add = () => {
    const called = name.trim();
    if (called === '') return;
    const id = freshId(called, base.rig.variants ?? {}, 'variant');
    if (!store.runOnBase(addVariant(base, id, called, like === '' ? undefined : like))) return;
    rig.chooseVariant(id);
    setName('');
  };
  return (
    <LineForm does="Add variant" onAdd={add}>
      <TextInput
        className="grow"
        aria-label="Name of a new variant"
        placeholder="Add a variant: tonight without the amp"
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <CellSelect
        bordered
        label="It begins as"
        value={like}
        choices={[
          { value: '', label: 'the rig itself' },
          ...variants.map((variant) => ({ value: variant.id, label: variant.name })),
        ]}
        onPick={setLike}
      />
    </LineForm>
  );
}

function VariantTable({ variants }: { readonly variants: readonly Variant[] }) {
  const { store } = useShow();
  const { base, variant: chosen } = useSaved();
  const rig = useRig();
  const use = (id: string | null, name: string) =>
    chosen === id ? (
      <b>in use</b>
    ) : (
      <LinkButton aria-label={`Use ${name}`} onClick={() => rig.chooseVariant(id)}>
        Use
      </LinkButton>
    );
  return (
    <DataTable
      label="Variants"
      columns={[{ head: 'Variant' }, { head: 'What is otherwise' }, { head: '', width: 80 }, { head: '', width: 90 }]}
    >
      <tr aria-selected={chosen === null}>
        <td style={{ padding: '3px 13px' }}>{base.rig.name}</td>
        <td className="soft">the rig itself: what is edited here goes into every variant</td>
        <td>{use(null, base.rig.name)}</td>
        <td />
      </tr>
      {variants.map(({ id, name, steps }) => (
        <tr key={id} aria-selected={chosen === id}>
          <td>
            <InlineField
              label={`Name of the variant ${name}`}
              value={name}
              onCommit={(typed) =>
                typed === ''
                  ? 'A variant needs a name.'
                  : store.runOnBase(setVariant(base, id, 'name', typed))
                    ? null
                    : 'It could not be renamed.'
              }
            />
          </td>
          <td className="soft">
            {steps.length === 0 ? 'nothing yet: use it, and edit what is otherwise' : changeWords(steps)}
          </td>
          <td>{use(id, name)}</td>
          <td style={{ textAlign: 'right' }}>
            <LinkButton
              aria-label={`Remove the variant ${name}`}
              onClick={() => store.runOnBase(removeVariant(base, id))}
            >
              Remove
            </LinkButton>
          </td>
        </tr>
      ))}
    </DataTable>
  );
}
