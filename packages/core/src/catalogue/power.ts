import type { MainsNeeds, PowerNeeds, PowerOutput, PowerSupplyFacts, TypePower } from '../model/power.ts';

/**
 * What types take and give of power, by their id: typical values (common practice), each to be replaced by what the
 * device's own papers say.
 */

const barrel = 'barrel 2.1 mm';

const nine = (ma: number, facts: Partial<PowerNeeds> = {}): TypePower => ({
  from: 'typical',
  needs: { kind: 'dc', volts: [9, 9], ma, centre: '-', plug: barrel, ...facts },
});
/** Nine volts, or a block battery of some 500 mAh. */
const nineOrBattery = (ma: number, facts: Partial<PowerNeeds> = {}): TypePower =>
  nine(ma, { battery: { mah: 500 }, ...facts });
const digital = (ma: number, facts: Partial<PowerNeeds> = {}): TypePower => nine(ma, { digital: true, ...facts });
const anyMains: Pick<MainsNeeds, 'volts' | 'hertz' | 'inlet'> = {
  volts: [100, 240],
  hertz: [50, 60],
  inlet: 'three-pin inlet',
};
/** Mains transformers are wound for one voltage. */
const mains = (va: number): TypePower => ({
  from: 'typical',
  mains: { va, volts: [220, 240], hertz: [50, 60], inlet: 'three-pin inlet', earthed: true },
});

const output = (number: number, choices: readonly (readonly [volts: number, ma: number])[]): PowerOutput => ({
  id: `dc-${number}`,
  label: `Out ${number}`,
  choices: choices.map(([volts, ma]) => ({ volts, ma })),
  kind: 'dc',
  centre: '-',
  plug: barrel,
});
const all = (outputs: readonly PowerOutput[]): readonly string[] => outputs.map(({ id }) => id);
const numbered = (
  count: number,
  choices: (number: number) => readonly (readonly [volts: number, ma: number])[],
  rail?: string,
): readonly PowerOutput[] =>
  Array.from({ length: count }, (_, i) => ({
    ...output(i + 1, choices(i + 1)),
    ...(rail === undefined ? {} : { rail }),
  }));

/** Small outputs first, then those for what is hungry, the last two to be set. */
function eightOutputs(): PowerSupplyFacts {
  const outputs = numbered(8, (number) =>
    number <= 4
      ? [[9, 100]]
      : number <= 6
        ? [
            [9, 300],
            [12, 250],
          ]
        : [
            [9, 500],
            [12, 400],
            [18, 250],
          ],
  );
  return {
    outputs,
    limits: [{ outputs: all(outputs), va: 18 }],
    joins: [{ outputs: ['dc-1', 'dc-2'], how: 'series' }],
  };
}

function alike(count: number, ma: number, whole: number, rail?: string): PowerSupplyFacts {
  const outputs = numbered(count, () => [[9, ma]], rail);
  return { outputs, limits: [{ outputs: all(outputs), ma: whole }] };
}

const onlyMains = (va: number, supply: PowerSupplyFacts): TypePower => ({
  from: 'typical',
  supply,
  mains: { va, ...anyMains },
});

const powers: Readonly<Record<string, TypePower>> = {
  // Pedals.
  tuner: digital(45),
  compressor: nineOrBattery(10),
  wah: nineOrBattery(5),
  drive: nineOrBattery(12, { volts: [9, 18] }),
  'drive-2': nineOrBattery(25),
  'drive-2-remote': nine(30),
  'bass-drive': nineOrBattery(20),
  distortion: nineOrBattery(15),
  fuzz: nineOrBattery(4),
  'fuzz-positive': nineOrBattery(3, { earth: '+', centre: '+' }),
  boost: nineOrBattery(20, { volts: [9, 18] }),
  'line-boost': nine(20, { volts: [9, 18] }),
  buffer: nine(15),
  modulation: nineOrBattery(25),
  equaliser: nineOrBattery(25),
  gate: nineOrBattery(20),
  delay: digital(70),
  reverb: digital(100),
  octave: nineOrBattery(15),
  pitch: digital(150),
  filter: nineOrBattery(20),
  tremolo: nineOrBattery(12),
  phaser: nineOrBattery(12),
  flanger: nineOrBattery(25),
  vibrato: nineOrBattery(20),
  rotary: digital(120),
  'chorus-stereo': nine(40),
  'delay-stereo': digital(120),
  'reverb-stereo': digital(160),
  'tape-echo': mains(30),
  freeze: digital(90),
  'looper-pedal': digital(150),
  'acoustic-preamp': nineOrBattery(40),
  'volume-active': nine(10),
  'cabinet-simulation': digital(120),
  // Presets.
  'midi-delay': digital(200),
  'midi-reverb': digital(300),
  'midi-multi': digital(300),
  'midi-delay-stereo': digital(200),
  'midi-reverb-stereo': digital(300),
  'midi-modulation': digital(250),
  'midi-multi-stereo': digital(350),
  'midi-multi-two': digital(350),
  'midi-pitch': digital(250),
  'equaliser-midi': digital(120),
  'amp-simulator': digital(400),
  'cabinet-loader': digital(250),
  'looping-station': digital(600),
  'looping-station-3': digital(1_000, { volts: [12, 12] }),
  'modeller-two-loops': digital(1_500, { volts: [12, 12] }),
  modeller: digital(1_500, { volts: [12, 12] }),
  'modeller-states': mains(40),
  'multi-effect-moves': digital(800),
  // Switching.
  'switcher-4': digital(150),
  'switcher-6': digital(250),
  'switcher-8': digital(300),
  'switcher-10': digital(350),
  'switcher-12': digital(400),
  'switcher-stereo-8': digital(400),
  'switcher-stereo-4': digital(250),
  'switcher-8-beside': digital(350),
  'switcher-8-orders': digital(400),
  'switcher-10-ends': digital(400),
  'foot-controller': digital(200),
  'foot-controller-10': digital(300),
  'midi-through-box': digital(50),
  'midi-merger': digital(50),
  router: nine(40),
  'router-contacts': nine(40),
  'router-any': nine(60),
  'selector-3': nine(20),
  'tempo-box': digital(40),
  'song-player': digital(500),
  'mixer-2': nine(20),
  'mixer-4': nine(60, { volts: [9, 12] }),
  'mixer-stereo': nine(100, { volts: [9, 12] }),
  'monitor-mixer': nine(100),
  receiver: digital(200, { volts: [9, 15] }),
  'direct-box-active': nineOrBattery(8),
  'band-split': nine(25),
  'band-split-out': nine(25),
  // Amps.
  'valve-combo': mains(180),
  'valve-combo-direct': mains(180),
  'valve-amp-1': mains(120),
  'valve-head-3': mains(300),
  'transistor-combo': mains(150),
  'bass-amp': mains(400),
  'acoustic-amp': mains(120),
  'power-amp': mains(250),
  'power-amp-stereo': mains(350),
  preamp: nine(200, { volts: [9, 12] }),
  'preamp-1': nine(60),
  // Supplies.
  supply: onlyMains(35, eightOutputs()),
  'supply-4': onlyMains(25, alike(4, 500, 1_500)),
  'supply-12': onlyMains(
    60,
    (() => {
      const outputs = numbered(12, (number) =>
        number <= 8
          ? [[9, 150]]
          : [
              [9, 500],
              [12, 400],
              [18, 250],
            ],
      );
      return {
        outputs,
        limits: [{ outputs: all(outputs), va: 36 }],
        joins: [{ outputs: ['dc-1', 'dc-2'], how: 'series' } as const],
      };
    })(),
  ),
  'supply-rail': onlyMains(15, alike(5, 1_000, 1_000, 'rail')),
  adapter: onlyMains(8, alike(1, 500, 500)),
  'adapter-ac': {
    from: 'typical',
    supply: { outputs: [{ ...output(1, [[9, 1_000]]), kind: 'ac' }] },
    mains: { va: 12, volts: [220, 240], hertz: [50, 50], inlet: 'its own plug' },
  },
  'battery-supply': {
    from: 'typical',
    supply: { ...alike(5, 500, 1_500), battery: { wh: 70, efficiency: 85 } },
  },
  'outlet-strip': {
    from: 'typical',
    mains: { va: 0, volts: [100, 240], hertz: [50, 60], inlet: 'three-pin inlet', earthed: true },
    outlets: { count: 6, va: 2_300 },
  },
  'edge-panel-midi': {
    from: 'typical',
    mains: { va: 0, volts: [100, 240], hertz: [50, 60], inlet: 'locking inlet', earthed: true },
    outlets: { count: 1, va: 2_300 },
  },
  'multi-core-power': {
    from: 'typical',
    lines: [
      { id: 'power-1', label: 'Supply 1', gauge: 20, metres: 8 },
      { id: 'power-2', label: 'Supply 2', gauge: 20, metres: 8 },
    ],
  },
};

export const powerOfType = (id: string): TypePower | undefined => (Object.hasOwn(powers, id) ? powers[id] : undefined);
export const poweredTypes: readonly string[] = Object.keys(powers);
