import { editAnatomy, type EffectKind, effectKinds, pointWords, type Section } from '@yunta/core';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { Chips } from './Chips.tsx';
import { conditionChips, conditionChoices, endsOf, startsOf, withCondition, withoutCondition } from './path-choices.ts';
import styles from './inside.module.css';
import { NameCell, RemoveCell } from './cells.tsx';
import type { Inside } from './use-inside.ts';

const nowhere = { value: '', label: 'nowhere here' };
const wire = 'wire';
const does = [wire, ...effectKinds].map((kind) => ({
  value: kind,
  label: kind === wire ? 'nothing: a wire' : kind.replace('-', ' '),
}));

/** The ways of the signal through the device. */
export function PathList(inside: Inside) {
  const { anatomy, edit } = inside;
  const [start] = startsOf(anatomy);
  const end = endsOf(anatomy).find(({ value }) => value !== start.value)!;
  return (
    <section aria-label="Paths">
      <h2>Paths</h2>
      <div className="sheet">
        <LineForm
          does="Add path"
          onAdd={() => edit(editAnatomy.addPath(anatomy, 'Path', { from: start.value, to: end.value }), 'Paths')}
        >
          <span className="grow soft">
            One way of the signal from here to there; several that end at one point are summed.
          </span>
        </LineForm>
        <div style={{ overflowX: 'auto' }}>
          <DataTable
            label="Paths"
            columns={[
              { head: 'Name' },
              { head: 'From' },
              { head: 'To' },
              { head: 'Does' },
              { head: 'dB', width: 56 },
              { head: 'While' },
              { head: 'Heard in it' },
              { head: '' },
            ]}
          >
            {anatomy.sections.map((section) => (
              <PathRow key={section.id} section={section} inside={inside} />
            ))}
          </DataTable>
        </div>
        <p className={styles.ends}>
          <span className="soft">Sound is born at</span>
          <CellSelect
            bordered
            label="Where sound is born"
            value={anatomy.source ?? ''}
            choices={[nowhere, ...startsOf(anatomy)]}
            onPick={(point) => edit(editAnatomy.setSource(anatomy, point === '' ? undefined : point), 'Ends')}
          />
          <span className="soft">and leaves the rig at</span>
          <CellSelect
            bordered
            label="Where sound leaves the rig"
            value={anatomy.destination ?? ''}
            choices={[nowhere, ...startsOf(anatomy)]}
            onPick={(point) => edit(editAnatomy.setDestination(anatomy, point === '' ? undefined : point), 'Ends')}
          />
        </p>
      </div>
    </section>
  );
}

function PathRow({ section, inside }: { readonly section: Section; readonly inside: Inside }) {
  const { anatomy, attempt, edit } = inside;
  const set = (change: Parameters<typeof editAnatomy.setPath>[2]) =>
    edit(editAnatomy.setPath(anatomy, section.id, change), 'Paths');
  const name = section.label;
  return (
    <tr>
      <NameCell
        what="path"
        name={name}
        onRename={(label) => attempt(editAnatomy.setPath(anatomy, section.id, { label }), 'Paths')}
      />
      <td>
        <CellSelect
          label={`Where ${name} begins`}
          value={section.from}
          shownAs={pointWords(anatomy, section.from)}
          choices={() => startsOf(anatomy).filter(({ value }) => value !== section.to)}
          onPick={(from) => set({ from })}
        />
      </td>
      <td>
        <CellSelect
          label={`Where ${name} ends`}
          value={section.to}
          shownAs={pointWords(anatomy, section.to)}
          choices={() => endsOf(anatomy).filter(({ value }) => value !== section.from)}
          onPick={(to) => set({ to })}
        />
      </td>
      <td>
        <CellSelect
          label={`What ${name} does`}
          value={section.active ? (section.effect ?? 'other') : wire}
          choices={does}
          onPick={(picked) =>
            edit(
              editAnatomy.setPathEffect(anatomy, section.id, picked === wire ? undefined : (picked as EffectKind)),
              'Paths',
            )
          }
        />
      </td>
      <td>
        <InlineField
          label={`Gain of ${name}, in decibels`}
          value={String(section.gainDb ?? 0)}
          look="mono"
          maxLength={8}
          onCommit={(typed) => {
            const gainDb = Number(typed.replace(',', '.').replace('−', '-'));
            if (typed === '' || !Number.isFinite(gainDb) || Math.abs(gainDb) > 120) return 'A number from −120 to 120.';
            return attempt(editAnatomy.setPath(anatomy, section.id, { gainDb }), 'Paths');
          }}
        />
      </td>
      <td>
        <Chips
          label={`When ${name} carries`}
          none="always"
          chips={conditionChips(anatomy, section)}
          choices={() => conditionChoices(anatomy, section)}
          onAdd={(picked) => edit(withCondition(anatomy, section, picked), 'Paths')}
          onRemove={(key) => edit(withoutCondition(anatomy, section, key), 'Paths')}
        />
      </td>
      <td>
        <Chips
          label={`Controls heard in ${name}`}
          none="none"
          chips={(section.parameters ?? []).map((id) => ({ key: id, words: controlName(inside, id) }))}
          choices={() =>
            [
              ...anatomy.controls.map(({ id, label }) => ({ value: id, label })),
              ...(anatomy.presets ? [{ value: 'preset', label: 'the preset' }] : []),
            ].filter(({ value }) => !section.parameters?.includes(value))
          }
          onAdd={(id) => edit(editAnatomy.setHeard(anatomy, section.id, id, true), 'Paths')}
          onRemove={(id) => edit(editAnatomy.setHeard(anatomy, section.id, id, false), 'Paths')}
        />
      </td>
      <RemoveCell
        label={`the path ${name}`}
        onRemove={() => edit(editAnatomy.removePath(anatomy, section.id), 'Paths')}
      />
    </tr>
  );
}

const controlName = ({ anatomy }: Inside, id: string): string =>
  id === 'preset' ? 'the preset' : (anatomy.controls.find((control) => control.id === id)?.label ?? id);
