import { Delivery } from './delivery.ts';
import { begin } from './events.ts';
import type { Prover } from './proof.ts';
import { powerUp } from './power.ts';
import { WholeStore } from './store.ts';

/** What one unplanned foot switch does to the sounds of a rig. */
export interface StrayReport {
  readonly device: string;
  readonly switch: string;
  /** Sounds that are wrong as soon as the foot is off, the rig having been in each of them. */
  readonly atOnce: readonly string[];
  /** Sounds whose next press does not bring them up right. */
  readonly after: readonly string[];
}

/** Level 3 told switch by switch, in document order: what breaks at once, what the next presses still bring up wrong. */
export function strayReports(prover: Prover): readonly StrayReport[] {
  return prover.strays.map((stray) => ({
    device: stray.device,
    switch: stray.switch,
    atOnce: prover.pairs().flatMap(({ slot, sound }) => (breaksAtOnce(prover, stray, slot.slot.id) ? [sound.id] : [])),
    after: prover.pairs().flatMap(({ slot, sound }) => {
      const isAlreadyWrong = prover.judge(slot, sound, 2).verdict === 'does-not';
      return !isAlreadyWrong && prover.judgeAfterStray(stray.index, slot, sound) === 'does-not' ? [sound.id] : [];
    }),
  }));
}

/** On the simulated rig: power up, press the slot, and where its sound is right then, whether the foot makes it wrong. */
function breaksAtOnce(prover: Prover, stray: { readonly device: string; readonly switch: string }, slotId: string): boolean {
  const { plant } = prover;
  const slot = plant.slot.get(slotId)!;
  const sound = plant.wiring.rig.sounds[slot.slot.sound!];
  const device = plant.device.get(stray.device)!;
  const footSwitch = device.wired.anatomy.switches.find((one) => one.id === stray.switch)!;
  const store = new WholeStore(new Int32Array(plant.variables.length), new Map());
  for (const one of plant.devices) powerUp(plant, one, store, true, (values) => values[0]);
  const happens = (event: Parameters<typeof begin>[1]): boolean => {
    const delivery = new Delivery(plant, store);
    begin(plant, event, delivery);
    return delivery.settle() === 'quiet';
  };
  const isRight = () => prover.hearing.judge((variable) => store.get(variable), prover.layOf(sound), { obey: true, pins: new Map() }).is !== 'wrong';
  if (!happens({ kind: 'press', slot }) || !isRight()) return false;
  return !happens({ kind: 'foot', device, footSwitch, stray: true }) || !isRight();
}
