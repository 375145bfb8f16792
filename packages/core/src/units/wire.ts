/** American wire gauge: whole numbers, thicker below; 0 is 1/0, −1 is 2/0. */
export type WireGauge = number;

/** Copper at 20 °C, in ohms times metres (Matula 1979, rounded as handbooks do). */
export const copperResistivity = 1.724e-8;

/** Millimetres of solid wire of a gauge: 0.127 mm × 92^((36 − n) / 39) (ASTM B258). */
export const wireDiameter = (gauge: WireGauge): number => 0.127 * 92 ** ((36 - gauge) / 39);

/** Ohms of a metre of copper wire. */
export function ohmsPerMetre(gauge: WireGauge): number {
  const radius = wireDiameter(gauge) / 2 / 1000;
  return copperResistivity / (Math.PI * radius ** 2);
}

/** Ohms there and back over so many metres one way; contacts are left out. */
export const loopOhms = (gauge: WireGauge, metres: number): number => 2 * metres * ohmsPerMetre(gauge);

/** Volts that are lost over a resistance at a current in mA. */
export const voltsLost = (ohms: number, ma: number): number => (ohms * ma) / 1000;
