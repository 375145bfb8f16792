import type { Show } from '../model/documents.ts';
import { slotsOfController } from '../model/slots.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';
import { floorSwitches } from '../show/floor.ts';
import type { Sheet, SheetLine } from './sheet.ts';

/** What lies under each switch of each controller, bank by bank, as the switches lie: the row nearest the foot last. */
export const bankPlans = (show: Show, wiring: Wiring): readonly Sheet[] =>
  wiring.devices.filter(({ anatomy }) => anatomy.controller).map((wired) => bankPlan(show, wired));

function bankPlan({ rig }: Show, { device, anatomy }: WiredDevice): Sheet {
  const { positions, floor } = anatomy.controller!;
  const perRow = Math.min(positions, floor?.perRow ?? positions);
  const slots = slotsOfController(rig, device.id);
  const banks = [...new Set(slots.map((slot) => slot.bank))];
  const rows = new Map<number, number[]>();
  for (const { position, y } of floorSwitches(positions, perRow, 1)) rows.set(y, [...(rows.get(y) ?? []), position]);
  const drawn = [...rows].sort(([a], [b]) => a - b).map(([, row]) => row);
  const nameOf = (bank: number, position: number): string => {
    const slot = slots.find((each) => each.bank === bank && each.position === position);
    if (!slot) return '';
    return slot.sound === null ? 'written by hand' : rig.sounds[slot.sound].name;
  };
  return {
    title: `Bank plan of ${device.name}`,
    about: rig.name,
    look: 'floor',
    columns: ['Bank', ...Array.from({ length: perRow }, () => '')],
    groups: [
      {
        heading: `${banks.length} ${banks.length === 1 ? 'bank' : 'banks'} in use`,
        lines: banks.flatMap((bank) =>
          drawn.map((row, i): SheetLine => ({
            id: `bank/${device.id}/${bank}/${i}`,
            cells: [
              i === 0 ? String(bank + 1) : '',
              ...Array.from({ length: perRow }, (_, k) =>
                k < row.length ? `${row[k] + 1}  ${nameOf(bank, row[k])}`.trim() : '',
              ),
            ],
          })),
        ),
      },
    ],
    notes: [],
  };
}
