import { type Anatomy, type CableEndRead, isOut, lengthLabel, type TextRow } from '@yunta/core';
import { useLibrary } from '../../api/library.ts';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import styles from './entry.module.css';
import { misreadingWords } from './misreading-words.ts';

interface Reading {
  readonly names: ReadonlyMap<string, string>;
  readonly anatomies: ReadonlyMap<string, Anatomy>;
  /** Takes another type or jack in the place of what was assumed. */
  readonly onChoose: (key: string, value: string) => void;
}

/** So many rows are drawn; of a longer text the wrong ones first. */
const mostRows = 120;

/** What each line that was typed would add; what was assumed can be changed in its place. */
export function ReadRows({ rows, ...reading }: Reading & { readonly rows: readonly TextRow[] }) {
  const wrong = rows.filter((row) => row.wrong);
  const drawn = rows.length <= mostRows ? rows : [...wrong, ...rows.filter((row) => !row.wrong)].slice(0, mostRows);
  return (
    <div className={styles.rows} role="region" aria-label="What would be added" tabIndex={0}>
      <ul>
        {drawn.map((row, i) => (
          <li key={`${row.statement.line}.${i}`} data-wrong={row.wrong ? true : undefined}>
            <span className={`mono ${styles.typed}`}>{row.statement.typed}</span>
            {row.wrong ? (
              <span className={styles.why}>{misreadingWords(row.wrong)}</span>
            ) : (
              <Adds row={row} {...reading} />
            )}
          </li>
        ))}
      </ul>
      {rows.length > drawn.length && <p className="soft">and {rows.length - drawn.length} more lines</p>}
    </div>
  );
}

function Adds({ row, ...reading }: Reading & { readonly row: TextRow }) {
  const { show } = useShow();
  const { entries: library } = useLibrary();
  return (
    <span className={styles.adds}>
      {row.adds.map((device) => (
        <span key={device.id} className={styles.added}>
          <b>{device.name}</b>
          <Assumed
            isAssumed={device.assumed}
            label={`Type of ${device.name}`}
            value={device.entry.type.id}
            shownAs={device.entry.type.name}
            choices={() =>
              [...new Set([device.entry, ...device.others, ...library])].map(({ type }) => ({
                value: type.id,
                label: type.name,
              }))
            }
            onPick={(picked) => reading.onChoose(device.key, picked)}
          />
        </span>
      ))}
      {row.cables.map(({ plugs, length }) => (
        <span key={plugs.map(({ device, jack }) => `${device}/${jack}`).join(' ')} className={styles.added}>
          {plugs.map((plug, i) => (
            <span key={plug.key} className={styles.end}>
              {i > 0 && <span className="soft">{isOutOf(plug, reading) ? '+' : '→'}</span>}
              {reading.names.get(plug.device)}
              <Assumed
                isAssumed={plug.assumed}
                label={`Jack of ${reading.names.get(plug.device)}`}
                value={plug.jack}
                shownAs={jackOf(plug, reading)?.label}
                choices={() => jacksLike(plug, reading)}
                onPick={(picked) => reading.onChoose(plug.key, picked)}
              />
            </span>
          ))}
          {length !== null && <span className="num soft">{lengthLabel(length, show.rig.settings.lengthUnit)}</span>}
        </span>
      ))}
      {row.known > 0 && row.adds.length + row.cables.length === 0 && <span className="soft">is there already</span>}
    </span>
  );
}

/** What nobody named: it says so, and can be chosen otherwise here. */
function Assumed({
  isAssumed,
  shownAs,
  ...choice
}: {
  readonly isAssumed: boolean;
  readonly label: string;
  readonly value: string;
  readonly shownAs: string | undefined;
  readonly choices: () => readonly { readonly value: string; readonly label: string }[];
  readonly onPick: (value: string) => void;
}) {
  if (!isAssumed) return <span className="soft">{shownAs}</span>;
  return (
    <span className={styles.assumed} title="Assumed: choose another here">
      <CellSelect {...choice} label={`${choice.label}, assumed`} shownAs={shownAs} />
    </span>
  );
}

const jackOf = ({ device, jack }: CableEndRead, { anatomies }: Reading) =>
  anatomies.get(device)?.jacks.find((each) => each.id === jack);

const isOutOf = (plug: CableEndRead, reading: Reading): boolean => {
  const jack = jackOf(plug, reading);
  return jack !== undefined && isOut(jack);
};

/** The jacks of the same kind on the same device. */
function jacksLike(plug: CableEndRead, reading: Reading) {
  const like = jackOf(plug, reading);
  return (reading.anatomies.get(plug.device)?.jacks ?? [])
    .filter((jack) => jack.kind === like?.kind && (jack.speaker ?? false) === (like.speaker ?? false))
    .map((jack) => ({ value: jack.id, label: jack.label }));
}
