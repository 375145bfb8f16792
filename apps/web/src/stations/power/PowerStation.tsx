import { Button } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { powerInUse } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { Batteries } from './Batteries.tsx';
import { LoadTable } from './LoadTable.tsx';
import { MainsTable } from './MainsTable.tsx';
import { Outputs } from './Outputs.tsx';
import { SolvedSheet } from './SolvedSheet.tsx';
import { useSolved } from './use-solved.ts';
import './power.css';

/** Outputs against loads, what is left without, the mains and the batteries behind them. */
export function PowerStation() {
  const { show } = useShow();
  const power = powerInUse(show.rig);
  const solver = useSolved();
  const canSolve = power.loads.length > 0 && power.feeds.length > 0;
  useHotkeys([['s', () => canSolve && solver.solve()]]);
  const without = power.loads.filter(({ by }) => by === 'nothing' || by === 'loose').length;
  return (
    <>
      <StationHead
        name="Power"
        startAt={['[data-solve]', '[aria-label="Add a supply"]']}
        question="Does every output hold?"
      >
        {power.isPlanned && (
          <span className="soft">
            {without === 0
              ? `all ${power.loads.length} pieces have power`
              : `${without} of ${power.loads.length} pieces without power`}
          </span>
        )}
        <Button data-solve disabled={!canSolve} onClick={solver.solve} title="Give every piece an output (S)">
          Solve
        </Button>
      </StationHead>
      {solver.solved && <SolvedSheet solved={solver.solved} onStop={solver.stop} onClose={solver.close} />}
      <Outputs power={power} />
      <LoadTable power={power} />
      <Batteries power={power} />
      <MainsTable />
      <p className="soft powercaution">
        Mains and earthing are for a licensed electrician, under the local code; the papers of each device have the last
        word. Never lift a protective earth. Disconnect the mains before anything is opened: capacitors stay charged.
      </p>
    </>
  );
}
