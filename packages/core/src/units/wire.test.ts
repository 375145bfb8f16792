import { expect, test } from '@jest/globals';
import { loopOhms, ohmsPerMetre, voltsLost, wireDiameter } from './wire.ts';

// Diameters and resistances of the gauge table in ASTM B258 and the NBS Copper Wire Tables (Handbook 100), from memory.
test.each([
  [12, 2.053, 5.211],
  [18, 1.024, 20.95],
  [24, 0.511, 84.22],
  [28, 0.321, 212.9],
])('gauge %i: %f mm, %f ohms a kilometre', (gauge, millimetres, ohms) => {
  expect(wireDiameter(gauge)).toBeCloseTo(millimetres, 3);
  expect(ohmsPerMetre(gauge) * 1000).toBeGreaterThan(ohms * 0.998);
  expect(ohmsPerMetre(gauge) * 1000).toBeLessThan(ohms * 1.002);
});

// numpy 1.24.2, confirmed by ngspice's operating point: 500 mA over 10 m of gauge 22.
test('half an amp over ten metres', () => {
  expect(voltsLost(loopOhms(22, 10), 500)).toBeCloseTo(0.5296, 4);
});

test('six gauges thinner: half the diameter, four times the ohms (a law of the table, nearly)', () => {
  for (let gauge = 0; gauge < 30; gauge += 1)
    expect(ohmsPerMetre(gauge + 6) / ohmsPerMetre(gauge)).toBeCloseTo(4.02, 2);
});
