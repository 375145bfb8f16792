import { Checkbox } from '@mantine/core';
import {
  baseOf,
  buildOn,
  controlLabel,
  deviceName,
  differencesOf,
  followersOf,
  inOrder,
  oddOnesOut,
  revertTo,
  setTwin,
  type Sound,
  valueLabel,
  type Wanted,
  wantedOf,
  type Wiring,
} from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';

/** The sound that the selected one builds on, what it has of its own, and what builds on it. */
export function BuiltOn() {
  const { show, sound, run } = useShow();
  if (!sound || Object.keys(show.rig.sounds).length < 2) return null;
  const base = baseOf(show.rig, sound);
  const followers = followersOf(show.rig, sound.id);
  const mayBe = inOrder(show.rig.sounds).filter((other) => !buildsOn(show.rig.sounds, other, sound));
  return (
    <section className="sheet" aria-label={`What ${sound.name} builds on`} style={{ marginTop: 10, maxWidth: 760 }}>
      <p style={{ margin: 0, padding: '6px 12px', display: 'flex', gap: 8, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <b>{sound.name}</b> <span className="soft">builds on</span>
        <CellSelect
          bordered
          label={`${sound.name} builds on`}
          value={base?.id ?? ''}
          choices={[{ value: '', label: 'nothing' }, ...mayBe.map((other) => ({ value: other.id, label: other.name }))]}
          onPick={(picked) => run(buildOn(show, sound.id, picked === '' ? undefined : picked))}
        />
        {followers.length > 0 && (
          <span className="soft">
            {followers.map(({ name }) => name).join(', ')} {followers.length === 1 ? 'builds' : 'build'} on it and{' '}
            {followers.length === 1 ? 'follows' : 'follow'} its edits
          </span>
        )}
      </p>
      {base && <Own sound={sound} base={base} />}
    </section>
  );
}

/** Whether a sound is another, or builds on it, however far along. */
function buildsOn(sounds: Readonly<Record<string, Sound>>, sound: Sound, on: Sound): boolean {
  for (let now: Sound | undefined = sound; now; now = now.basedOn ? sounds[now.basedOn.sound] : undefined)
    if (now.id === on.id) return true;
  return false;
}

function Own({ sound, base }: { readonly sound: Sound; readonly base: Sound }) {
  const { show, run, wiring } = useShow();
  const own = differencesOf(base, sound);
  const odd = new Set(oddOnesOut(base, sound).map(({ key }) => key));
  const only = sound.basedOn?.only;
  return (
    <>
      <p style={{ margin: 0, padding: '0 12px 6px' }}>
        <Checkbox
          label={`Its twin: the same but for what is below${own.length === 0 ? ' (nothing yet)' : ''}, anything else is found`}
          checked={only !== undefined}
          onChange={(event) =>
            run(setTwin(show, sound.id, event.currentTarget.checked ? own.map(({ key }) => key) : undefined))
          }
        />
      </p>
      {own.length > 0 && (
        <DataTable
          label={`What ${sound.name} has of its own`}
          columns={[{ head: 'Of its own' }, { head: sound.name }, { head: base.name }, { head: '', width: 190 }]}
        >
          {own.map((wanted) => (
            <tr key={`${wanted.field} ${wanted.key}`}>
              <td>{nameOf(wiring, wanted)}</td>
              <td>{told(wiring, sound, wanted)}</td>
              <td className="soft">{told(wiring, base, wanted)}</td>
              <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
                {odd.has(wanted.key) && (
                  <LinkButton
                    aria-label={`Keep ${nameOf(wiring, wanted)} otherwise`}
                    onClick={() => run(setTwin(show, sound.id, [...only!, wanted.key]))}
                  >
                    Keep
                  </LinkButton>
                )}{' '}
                <LinkButton
                  aria-label={`Put back ${nameOf(wiring, wanted)}`}
                  onClick={() => run(revertTo(show, sound.id, [wanted]))}
                >
                  Put back
                </LinkButton>
              </td>
            </tr>
          ))}
        </DataTable>
      )}
    </>
  );
}

const nameOf = (wiring: Wiring, { field, key }: Wanted): string =>
  field === 'pedals' ? deviceName(wiring, key) : controlLabel(wiring, key);

function told(wiring: Wiring, sound: Sound, wanted: Wanted): string {
  const value = wantedOf(sound, wanted);
  if (value === undefined) return 'don’t care';
  return wanted.field === 'pedals' ? String(value) : valueLabel(wiring, wanted.key, value);
}
