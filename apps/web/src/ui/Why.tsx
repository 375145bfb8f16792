import { Popover } from '@mantine/core';
import { useState } from 'react';

/** Where a number comes from. */
export interface Evidence {
  readonly inputs: readonly (readonly [name: string, value: string])[];
  readonly formula: string;
  readonly source: string;
  /** Whether its inputs are typical values of the type, or were measured or entered for this very unit. */
  readonly rests: 'typical' | 'entered' | 'exact';
}

const restsWords: Record<Evidence['rests'], string> = { typical: 'on typical values, until this unit’s own are entered', entered: 'on what was entered for this rig', exact: 'on nothing assumed' };

/** A number that can be asked why: its inputs, its formula, its source. */
export function Why({ value, of, evidence }: { readonly value: string; readonly of: string; readonly evidence: Evidence }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-start" shadow="none" withinPortal trapFocus returnFocus width={300}>
      <Popover.Target>
        <button className={`number${evidence.rests === 'typical' ? ' typical' : ''}`} aria-expanded={open} aria-label={`${of}: ${value}${evidence.rests === 'typical' ? ', typical' : ''}. Why?`} onClick={() => setOpen(!open)}>
          {value}
        </button>
      </Popover.Target>
      <Popover.Dropdown className="evidence">
        <b>
          {of}: {value}
        </b>
        <dl>
          {evidence.inputs.map(([name, given]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd className="mono">{given}</dd>
            </div>
          ))}
        </dl>
        <p className="mono">{evidence.formula}</p>
        <p className="soft">
          Rests {restsWords[evidence.rests]}. Source: {evidence.source}.
        </p>
        <button className="linkish" onClick={() => setOpen(false)}>
          Close
        </button>
      </Popover.Dropdown>
    </Popover>
  );
}
