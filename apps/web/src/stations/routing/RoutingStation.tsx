import { Button, Checkbox } from '@mantine/core';
import { useLocalStorage, useMediaQuery } from '@mantine/hooks';
import { inOrder } from '@yunta/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { DeviceStrip } from './DeviceStrip.tsx';
import { PatchTable } from './PatchTable.tsx';
import styles from './routing.module.css';
import { LoopsPage } from './loops/LoopsPage.tsx';
import { Runs } from './Runs.tsx';
import { beforeEdit, useBeforeEdit } from './use-compared.ts';
import './weave.css';

/** What happens to the signal in the selected sound; or which piece gets a loop. */
export function RoutingStation() {
  const [params, setParams] = useSearchParams();
  return params.get('view') === 'loops' ? (
    <LoopsPage onClose={() => setParams({})} />
  ) : (
    <RunAndPatch onLoops={() => setParams({ view: 'loops' })} />
  );
}

/** The run of the selected sound; under it what is plugged into what. */
function RunAndPatch({ onLoops }: { readonly onLoops: () => void }) {
  const { show, sound } = useShow();
  const [controls, setControls] = useState(false);
  const [folds, setFolds] = useState(false);
  const [compared, setCompared] = useState('');
  const [beside, setBeside] = usePatchBeside();
  const before = useBeforeEdit();
  const isEmpty = Object.keys(show.rig.devices).length === 0;
  return (
    <>
      <StationHead
        name="Routing"
        startAt={['[aria-label="Add a cable"]']}
        question="What happens to the signal in this sound?"
      >
        <span className="soft">Compare with</span>
        <CellSelect
          bordered
          label="Compare with"
          value={compared}
          shownAs={compared === beforeEdit ? 'before the last edit' : undefined}
          placeholder="nothing"
          choices={[
            { value: '', label: 'nothing' },
            ...(before ? [{ value: beforeEdit, label: `before: ${before.name}` }] : []),
            ...inOrder(show.rig.sounds)
              .filter((other) => other.id !== sound?.id)
              .map((other) => ({ value: other.id as string, label: other.name })),
          ]}
          onPick={setCompared}
        />
        <Checkbox
          size="xs"
          label="Fold what does nothing"
          checked={folds}
          onChange={(event) => setFolds(event.currentTarget.checked)}
        />
        <Checkbox
          size="xs"
          label="Patch beside"
          checked={beside}
          onChange={(event) => setBeside(event.currentTarget.checked)}
        />
        <Checkbox
          size="xs"
          label="MIDI and contacts"
          checked={controls}
          onChange={(event) => setControls(event.currentTarget.checked)}
        />
        <Button variant="default" size="compact-sm" onClick={onLoops}>
          Loops
        </Button>
      </StationHead>
      <div className={styles.station} data-beside={beside || undefined}>
        <div>
          {isEmpty ? (
            <Beginning />
          ) : (
            <Runs compared={compared} folds={folds} controls={controls} onUnfold={() => setFolds(false)} />
          )}
          <DeviceStrip />
        </div>
        <div className={styles.patch}>
          <PatchTable />
        </div>
      </div>
    </>
  );
}

function Beginning() {
  return (
    <div className="sheet" style={{ padding: '18px 16px' }}>
      <h2>An empty rig</h2>
      <p className="soft" style={{ margin: '6px 0 0', maxWidth: 560 }}>
        Type below what there is and what plugs into what, a line at a time or all at once:{' '}
        <span className="mono">guitar &gt; tuner &gt; switcher</span>, then{' '}
        <span className="mono">1: drive soft; 2: drive hard</span>. The run draws itself.
      </p>
    </div>
  );
}

const storageKey = 'patch-beside';

/** Whether the patch stands beside the picture: as it was chosen here last, else where there is room for both. */
function usePatchBeside(): readonly [boolean, (beside: boolean) => void] {
  const [chosen, setChosen] = useLocalStorage<boolean | null>({
    key: storageKey,
    defaultValue: null,
    getInitialValueInEffect: false,
  });
  const hasRoom = useMediaQuery('(min-width: 1560px)', false, { getInitialValueInEffect: false });
  return [chosen ?? hasRoom ?? false, setChosen];
}
