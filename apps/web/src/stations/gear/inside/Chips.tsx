import { CellSelect } from '../../../ui/CellSelect.tsx';
import type { Choice } from '../../../ui/choices.ts';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import styles from './inside.module.css';

interface ChipsProps {
  readonly label: string;
  readonly chips: readonly { readonly key: string; readonly words: string }[];
  /** What there is to choose, worked out when the list opens. */
  readonly choices: () => readonly Choice[];
  readonly onAdd: (value: string) => void;
  readonly onRemove: (key: string) => void;
  /** What is said where there is none. */
  readonly none: string;
}

/** Several of a list, each taken away by its cross, one more chosen behind them. */
export function Chips({ label, chips, choices, onAdd, onRemove, none }: ChipsProps) {
  return (
    <span className={styles.chips}>
      {chips.map(({ key, words }) => (
        <span key={key} className={styles.chip}>
          {words}
          <LinkButton aria-label={`${label}: without ${words}`} onClick={() => onRemove(key)}>
            ×
          </LinkButton>
        </span>
      ))}
      <CellSelect
        label={label}
        value=""
        placeholder={chips.length === 0 ? none : 'and'}
        choices={choices}
        onPick={onAdd}
      />
    </span>
  );
}
