import { Button, Combobox, Textarea, useCombobox } from '@mantine/core';
import {
  addRigText,
  type Choices,
  type Completion,
  completeRigText,
  leftOver,
  readRigText,
  type RigText,
} from '@yunta/core';
import { useDeferredValue, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { useLibrary } from '../../api/library.ts';
import { useShow } from '../../api/rig.tsx';
import { ReadRows } from './ReadRows.tsx';
import styles from './entry.module.css';

const noCompletion: Completion = { from: 0, to: 0, options: [] };
const kinds = { device: 'on the rig', jack: 'jack', type: 'new' } as const;

/**
 * Takes gear and cables as they are typed, a line or a whole rig at a time. What would be added is shown before it is,
 * with each thing that was assumed; what is not understood stays, with why.
 */
export function RigEntry({ label, placeholder }: { readonly label: string; readonly placeholder: string }) {
  const { show, run, selectDevice } = useShow();
  const { entries: library, isComing } = useLibrary();
  const unit = show.rig.settings.lengthUnit ?? 'm';
  const [text, setText] = useState('');
  const [choices, setChoices] = useState<Choices>({});
  const [said, setSaid] = useState('');
  const [waiting, setWaiting] = useState('');
  const [completion, setCompletion] = useState(noCompletion);
  const area = useRef<HTMLTextAreaElement>(null);
  const list = useCombobox({ onDropdownClose: () => list.resetSelectedOption() });
  const shown = useDeferredValue(text);
  const read = useMemo(
    () => readRigText(show, shown, { choices, bare: unit, library }),
    [show, shown, choices, unit, library],
  );

  const type = (typed: string, caret: number, completes: boolean) => {
    setText(typed);
    setSaid('');
    const found = completes ? completeRigText(show, typed, caret, library) : noCompletion;
    setCompletion(found);
    list.resetSelectedOption();
    if (found.options.length > 0) list.openDropdown();
    else list.closeDropdown();
  };
  const complete = (option: string) => {
    const whole = `${text.slice(0, completion.from)}${option}${text.slice(completion.to)}`;
    const caret = completion.from + option.length;
    type(whole, caret, false);
    requestAnimationFrame(() => area.current?.setSelectionRange(caret, caret));
  };
  /** Adds what was typed; what is not understood stays before what has been typed since. */
  const add = (typed: string, since = '') => {
    const now = readRigText(show, typed, { choices, bare: unit, library });
    const stays = (left: string) => setText([left, since].filter((part) => part !== '').join('\n'));
    const command = addRigText(show, now);
    list.closeDropdown();
    if (!command) {
      stays(typed);
      return setSaid(typed.trim() === '' ? 'Type what there is, or what plugs into what.' : '');
    }
    if (!run(command)) return stays(typed);
    stays(leftOver(now.rows));
    setChoices({});
    setSaid(addedWords(now));
    const added = now.rows.flatMap((row) => row.adds);
    if (added.length === 1) selectDevice(added[0].id);
  };
  // Lines entered before one's own types are there wait for them: a name of theirs would be refused as unknown.
  const addWaiting = useEffectEvent(() => {
    setWaiting('');
    add(waiting, text);
  });
  useEffect(() => {
    if (waiting !== '' && !isComing) addWaiting();
  }, [waiting, isComing]);
  const ask = () => {
    if (!isComing || text.trim() === '') return add(text);
    setWaiting((before) => [before, text].filter((part) => part !== '').join('\n'));
    setText('');
    setSaid('Added as soon as your own types are there.');
  };
  const isOpen = list.dropdownOpened && completion.options.length > 0;
  return (
    <div className={`sheet ${styles.entry}`}>
      <form
        className="addline"
        onSubmit={(event) => {
          event.preventDefault();
          ask();
        }}
      >
        <Combobox store={list} onOptionSubmit={complete} shadow="none" position="bottom-start" width={320} withinPortal>
          <Combobox.Target withKeyboardNavigation={isOpen} withExpandedAttribute>
            <Textarea
              ref={area}
              className="grow"
              classNames={{ input: styles.area }}
              aria-label={label}
              placeholder={placeholder}
              autosize
              minRows={1}
              maxRows={14}
              value={text}
              spellCheck={false}
              autoComplete="off"
              onChange={(event) => type(event.currentTarget.value, event.currentTarget.selectionStart, true)}
              onPaste={() => list.closeDropdown()}
              onBlur={() => list.closeDropdown()}
              onKeyDown={(event) => {
                if (event.key === 'Escape' && isOpen) {
                  event.stopPropagation();
                  list.closeDropdown();
                } else if (event.key === 'Tab' && !event.shiftKey && isOpen) {
                  event.preventDefault();
                  complete(completion.options[Math.max(0, list.getSelectedOptionIndex())].text);
                } else if (event.key === 'Enter' && !event.shiftKey && list.getSelectedOptionIndex() < 0) {
                  event.preventDefault();
                  ask();
                }
              }}
            />
          </Combobox.Target>
          <Combobox.Dropdown hidden={!isOpen}>
            <Combobox.Options aria-label={`${label}: what fits`}>
              {completion.options.map((option) => (
                <Combobox.Option key={`${option.is} ${option.text}`} value={option.text} className={styles.option}>
                  <span>{option.text}</span>
                  <span className="soft">{kinds[option.is]}</span>
                </Combobox.Option>
              ))}
            </Combobox.Options>
          </Combobox.Dropdown>
        </Combobox>
        <Button type="submit">{buttonWords(read)}</Button>
      </form>
      {read.rows.length > 0 && (
        <ReadRows
          rows={read.rows}
          names={new Map(read.devices.map(({ id, name }) => [id, name]))}
          anatomies={new Map(read.devices.map(({ id, anatomy }) => [id, anatomy]))}
          onChoose={(key, value) => setChoices((before) => ({ ...before, [key]: value }))}
        />
      )}
      <p className={styles.hint}>
        <span role="status">{said}</span>
        <span>
          <kbd>Enter</kbd> adds · <kbd>Shift</kbd>+<kbd>Enter</kbd> another line · <kbd>Tab</kbd> completes
        </span>
        <span className="mono">guitar &gt; 6 m &gt; volume &gt; switcher</span>
        <span className="mono">1: comp; 2: drive soft</span>
        <span className="mono">midi: switcher &gt; delay</span>
      </p>
    </div>
  );
}

const count = (rows: RigText['rows'], what: 'adds' | 'cables'): number =>
  rows.reduce((sum, row) => sum + row[what].length, 0);

const several = (number: number, what: string): string => `${number} ${what}${number === 1 ? '' : 's'}`;

/** `2 devices and 5 cables`; nothing of what there is none. */
function amountWords(rows: RigText['rows']): string {
  const [devices, cables] = [count(rows, 'adds'), count(rows, 'cables')];
  return [...(devices > 0 ? [several(devices, 'device')] : []), ...(cables > 0 ? [several(cables, 'cable')] : [])].join(
    ' and ',
  );
}

const buttonWords = ({ rows }: RigText): string => {
  const amount = amountWords(rows);
  return amount === '' ? 'Add' : `Add ${amount}`;
};

function addedWords({ rows }: RigText): string {
  const left = rows.filter((row) => row.wrong !== undefined).length;
  return `Added ${amountWords(rows)}.${left > 0 ? ` ${several(left, 'line')} left, with why.` : ''}`;
}
