import { Popover, UnstyledButton } from '@mantine/core';
import type { Evidence } from '@yunta/core';
import { useState } from 'react';
import { LinkButton } from './LinkButton.tsx';

const restsWords: Record<Evidence['rests'], string> = {
  typical: 'on typical values, until this unit’s own are entered',
  entered: 'on what was entered for this rig',
  exact: 'on nothing assumed',
};

/**
 * A number that can be asked why: its inputs, its formula, its source. `dense`: among many that rest on typical values,
 * where the look alone says so.
 */
export function Why({ evidence, dense = false }: { readonly evidence: Evidence; readonly dense?: boolean }) {
  const [open, setOpen] = useState(false);
  const { of, value } = evidence;
  const isTypical = evidence.rests === 'typical';
  return (
    <Popover
      opened={open}
      onChange={setOpen}
      position="bottom-start"
      shadow="none"
      withinPortal
      trapFocus
      returnFocus
      width={300}
    >
      <Popover.Target>
        <UnstyledButton
          className={`number${isTypical ? ' typical' : ''}`}
          aria-expanded={open}
          aria-label={`${of}: ${value}${isTypical ? ' typical' : ''}. Why?`}
          onClick={(event) => {
            event.stopPropagation();
            setOpen(!open);
          }}
        >
          {value}
          {isTypical && !dense && <small> typical</small>}
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown className="evidence">
        <b>
          {of}: {value}
        </b>
        <dl>
          {evidence.inputs.map(([name, given]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd className={/^[\d−-]/.test(given) ? 'mono' : undefined}>{given}</dd>
            </div>
          ))}
        </dl>
        <p className="mono">{evidence.formula}</p>
        <p className="soft">
          Rests {restsWords[evidence.rests]}. Source: {evidence.source}.
        </p>
        <LinkButton onClick={() => setOpen(false)}>Close</LinkButton>
      </Popover.Dropdown>
    </Popover>
  );
}
