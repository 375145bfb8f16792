import { type Device, floorSwitches, footPath, footTravel, type Slot, songOf, why } from '@yunta/core';
import { useEffect, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { Why } from '../../ui/Why.tsx';

const scale = 1.9;
const margin = { x: 70, top: 76, bottom: 62 };

/** One bank of the floor unit, its switches at their millimetres, with the foot's way through the selected song. */
export function Floor({ controller, slot: mine }: { readonly controller: Device; readonly slot: Slot | null }) {
  const { show, wiring, selectSound } = useShow();
  const [bank, setBank] = useState(mine?.bank ?? 0);
  useEffect(() => {
    if (mine && mine.controller === controller.id) setBank(mine.bank);
  }, [mine, controller.id]);
  const facts = wiring.device.get(controller.id)!.anatomy.controller!;
  const floor = facts.floor ?? { perRow: 5, pitchMm: 62 };
  const switches = floorSwitches(facts.positions, floor.perRow, floor.pitchMm);
  const slots = Object.values(show.rig.slots).filter((slot) => slot.controller === controller.id);
  const song = songOf(show, mine);
  const path = song === null ? [] : footPath(show, song, controller.id);
  const travel = footTravel(path, switches);
  const here = path.filter((slot) => slot.bank === bank);
  const at = (position: number) => ({
    x: margin.x + switches[position].x * scale,
    y: margin.top + switches[position].y * scale,
  });
  const width = 2 * margin.x + Math.max(...switches.map((floorSwitch) => floorSwitch.x)) * scale;
  const height = margin.top + margin.bottom + Math.max(...switches.map((floorSwitch) => floorSwitch.y)) * scale;
  const used = Math.max(bank, ...slots.map((slot) => slot.bank), 0) + 1;
  return (
    <>
      <div className="sectionhead">
        <h2>
          Bank {bank + 1} of {controller.name}, under the foot
        </h2>
        <span className="tools" style={{ display: 'flex', gap: 8 }}>
          <button className="linkish" disabled={bank === 0} onClick={() => setBank(bank - 1)}>
            Bank down
          </button>
          <button
            className="linkish"
            disabled={bank + 1 >= facts.banks}
            onClick={() => setBank(Math.min(facts.banks - 1, bank + 1, used))}
          >
            Bank up
          </button>
        </span>
      </div>
      <div className="sheet floorplan">
        <p className="soft" style={{ margin: 0, padding: '6px 8px', fontSize: 12 }}>
          switches {floor.pitchMm} mm apart
          {song !== null && (
            <>
              ; the line is the foot’s way through <b>{show.songbook.songs[song].name}</b>:{' '}
              <Why evidence={why.footWay(path, floor.pitchMm, travel)} />
              {travel.bankMoves > 0 && `, ${travel.bankMoves} bank ${travel.bankMoves === 1 ? 'move' : 'moves'}`}
            </>
          )}
        </p>
        <div style={{ position: 'relative', width, height }}>
          <svg width={width} height={height} aria-hidden="true">
            {here.slice(1).map((slot, i) => (
              <path key={`${slot.id}${i}`} className="foot" d={arc(at(here[i].position), at(slot.position))} />
            ))}
          </svg>
          {switches.map(({ position }) => {
            const slot = slots.find((slot) => slot.bank === bank && slot.position === position);
            const name = slot?.sound ? show.rig.sounds[slot.sound]?.name : undefined;
            const { x, y } = at(position);
            return (
              <button
                key={position}
                className={`switch${name ? '' : ' empty'}`}
                style={{ left: x, top: y }}
                aria-pressed={slot !== undefined && slot === mine}
                title={name}
                onClick={() => slot?.sound && selectSound(slot.sound)}
              >
                <span className="visually-hidden">Switch </span>
                <span className="knob">{position + 1}</span>
                <span className="visually-hidden">: </span>
                <span className="tape">{name ?? 'empty'}</span>
              </button>
            );
          })}
        </div>
      </div>
    </>
  );
}

/** From switch to switch, over the knobs. */
function arc(from: { readonly x: number; readonly y: number }, to: { readonly x: number; readonly y: number }): string {
  const lift = Math.min(52, 18 + Math.abs(to.x - from.x) / 6);
  const top = Math.min(from.y, to.y) - 20 - lift;
  return `M${from.x} ${from.y - 20} C${from.x} ${top} ${to.x} ${top} ${to.x} ${to.y - 20}`;
}
