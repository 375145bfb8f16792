import {
  DndContext,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { UnstyledButton } from '@mantine/core';
import {
  assertNever,
  type Command,
  commands,
  type Device,
  footPath,
  inOrder,
  type Show,
  type Slot,
  slotLabel,
  slotsOfController,
  songOf,
} from '@yunta/core';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { actionOfPlanKey, findTyped, floorRows, type Place, type PlanShape } from './plan-keys.ts';
import styles from './program.module.css';

/** What is picked up: a slot from its switch, or a sound that has none. */
type Carried = { readonly kind: 'slot'; readonly id: string } | { readonly kind: 'sound'; readonly id: string };

interface SlotPlanProps {
  readonly controller: Device;
  /** A layout that is only looked at: nothing can be moved in it. */
  readonly preview: Show | null;
}

/**
 * The whole floor unit, bank by bank, with what lies under each switch. A sound goes to another switch by dragging, or
 * by keys: Space picks up and puts down.
 */
export function SlotPlan({ controller, preview }: SlotPlanProps) {
  const { show: own, wiring, sound, selectSound, run, store } = useShow();
  const show = preview ?? own;
  const shape = shapeOf(wiring.device.get(controller.id)!.anatomy.controller!);
  const slots = useMemo(() => slotsOfController(show.rig, controller.id), [show.rig, controller.id]);
  const mine = slots.find((slot) => slot.sound !== null && slot.sound === sound?.id) ?? null;
  const [at, setAt] = useState<Place>(mine ?? { bank: 0, position: 0 });
  const [carried, setCarried] = useState<Carried | null>(null);
  const [said, say] = useState('');
  const [all, setAll] = useState(false);
  const grid = useRef<HTMLDivElement>(null);
  const typed = useRef({ text: '', when: 0 });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const nameOf = (slot: Slot | undefined) =>
    slot === undefined ? 'empty' : slot.sound === null ? 'written by hand, no sound' : show.rig.sounds[slot.sound].name;
  const slotUnder = (place: Place) =>
    slots.find((slot) => slot.bank === place.bank && slot.position === place.position);
  const lastUsed = Math.max(-1, at.bank, ...slots.map((slot) => slot.bank));
  const shownBanks = all ? shape.banks : Math.min(shape.banks, Math.max(3, lastUsed + 2));
  const song = songOf(show, mine);
  const orders = useMemo(() => ordersOf(show, song, controller.id), [show, song, controller.id]);
  const unplaced = useMemo(() => {
    const placed = new Set(slots.map((slot) => slot.sound));
    return inOrder(show.rig.sounds).filter((each) => !placed.has(each.id));
  }, [slots, show.rig.sounds]);

  useEffect(() => {
    if (mine) setAt({ bank: mine.bank, position: mine.position });
    // Follows the selected sound, not each move of its slot.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [mine?.id]);

  const focusAt = (place: Place) => {
    const look = () => grid.current?.querySelector<HTMLElement>(`[data-place="${place.bank}.${place.position}"]`);
    const there = look();
    // A bank that is only now shown stands there a frame later.
    if (there) there.focus();
    else requestAnimationFrame(() => look()?.focus());
  };
  const commandTo = (what: Carried, place: Place): Command | null =>
    what.kind === 'slot'
      ? commands.moveSlot(show, what.id, { controller: controller.id, ...place })
      : commands.placeSound(show, what.id, { controller: controller.id, ...place });
  const put = (what: Carried, place: Place) => {
    const there = slotUnder(place);
    const command = commandTo(what, place);
    setCarried(null);
    if (!command) {
      if (what.kind === 'sound')
        store.refuse(`Every switch of ${controller.name} is taken: clear one first, or raise its banks on Gear.`);
      return say('left where it was');
    }
    if (!run(command)) return;
    say(`put on ${slotLabel(place)}${there ? `; ${nameOf(there)} moved` : ''}`);
    setAt(place);
  };
  const pickUp = (place: Place) => {
    const slot = slotUnder(place);
    if (!slot) return say('nothing lies here');
    setCarried({ kind: 'slot', id: slot.id });
    say(`${nameOf(slot)} picked up from ${slotLabel(place)}. Arrows go to another switch, Space puts it there.`);
  };
  const overWords = (place: Place) => `over ${slotLabel(place)}: ${nameOf(slotUnder(place))}`;
  const walk = (to: Place) => {
    setAt(to);
    if (carried) say(overWords(to));
    focusAt(to);
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const action = actionOfPlanKey(event, { ...shape, banks: shownBanks }, at);
    if (!action) return;
    if (action.kind !== 'give-up' || carried) {
      event.preventDefault();
      event.stopPropagation();
    }
    switch (action.kind) {
      case 'walk':
        return walk(action.to);
      case 'carry':
        if (preview) return;
        return carried ? put(carried, at) : pickUp(at);
      case 'select': {
        const slot = slotUnder(at);
        if (carried) put(carried, at);
        else if (slot?.sound) selectSound(slot.sound);
        return;
      }
      case 'clear': {
        const slot = slotUnder(at);
        if (slot && !preview) run(commands.removeSlot(show, slot.id));
        return;
      }
      case 'give-up':
        setCarried(null);
        return say('left where it was');
      case 'find': {
        const now = Date.now();
        const text = now - typed.current.when < 900 ? typed.current.text + action.letter : action.letter;
        typed.current = { text, when: now };
        const found = findTyped(
          slots.map((slot) => ({ bank: slot.bank, position: slot.position, name: nameOf(slot) })),
          at,
          text,
        );
        if (found) walk({ bank: found.bank, position: found.position });
        return;
      }
      default:
        return assertNever(action, 'action');
    }
  };
  const carriedName =
    carried === null
      ? ''
      : carried.kind === 'sound'
        ? show.rig.sounds[carried.id].name
        : nameOf(show.rig.slots[carried.id]);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setCarried(active.data.current as Carried)}
      onDragOver={({ over }) => {
        const place = over?.data.current as Place | undefined;
        say(place ? overWords(place) : '');
      }}
      onDragCancel={() => setCarried(null)}
      onDragEnd={({ active, over }) =>
        over ? put(active.data.current as Carried, over.data.current as Place) : setCarried(null)
      }
    >
      <div className={`sheet ${styles.plan}`}>
        <div
          role="grid"
          aria-label={`Switches of ${controller.name}`}
          ref={grid}
          onKeyDown={onKeyDown}
          style={{ minWidth: shape.perRow * 112 + 36 }}
        >
          {Array.from({ length: shownBanks }, (_, bank) => (
            <div key={bank} className={styles.bank} role="rowgroup" aria-label={`Bank ${bank + 1}`}>
              <span className={styles.bankname} aria-hidden="true">
                {bank + 1}
              </span>
              <div>
                {floorRows(shape).map((positions) => (
                  <div
                    key={positions[0]}
                    role="row"
                    className={styles.floorrow}
                    style={{ gridTemplateColumns: `repeat(${shape.perRow}, minmax(0, 1fr))` }}
                  >
                    {positions.map((position) => {
                      const slot = slotUnder({ bank, position });
                      return (
                        <Switch
                          key={position}
                          place={{ bank, position }}
                          slotId={slot?.id ?? null}
                          name={nameOf(slot)}
                          order={slot ? (orders.get(slot.id) ?? '') : ''}
                          byHand={slot !== undefined && slot.actions !== null}
                          moved={preview !== null && slot !== undefined && isMoved(own, slot)}
                          selected={slot !== undefined && slot === mine}
                          isHere={at.bank === bank && at.position === position}
                          carried={carried?.kind === 'slot' && carried.id === slot?.id}
                          target={carried !== null && at.bank === bank && at.position === position}
                          fixed={preview !== null}
                          onPress={() => {
                            setAt({ bank, position });
                            if (slot?.sound) selectSound(slot.sound);
                          }}
                        />
                      );
                    })}
                  </div>
                ))}
              </div>
            </div>
          ))}
        </div>
        <p className="visually-hidden" role="status">
          {said}
        </p>
        {unplaced.length > 0 && !preview && (
          <div className={styles.tray} role="group" aria-label="Sounds without a switch">
            <span className="soft">Without a switch:</span>
            {unplaced.map((each) => (
              <UnplacedSound
                key={each.id}
                id={each.id}
                name={each.name}
                carried={carried?.kind === 'sound' && carried.id === each.id}
                onPickUp={() => {
                  setCarried({ kind: 'sound', id: each.id });
                  say(`${each.name} picked up. Arrows go to a switch, Space puts it there.`);
                  focusAt(at);
                }}
              />
            ))}
          </div>
        )}
        <div className={styles.below}>
          {song !== null && (
            <span>
              <span className={styles.order}>1, 2, 3</span> the foot’s way through{' '}
              <b>{show.songbook.songs[song].name}</b>
            </span>
          )}
          {slots.some((slot) => slot.actions !== null) && (
            <span>
              <span style={{ textDecoration: 'underline dotted', textUnderlineOffset: 3 }}>dotted</span>: written by
              hand
            </span>
          )}
          {!preview && <span>drag a sound to another switch, or Space, arrows, Space; two swap</span>}
          {shape.banks > shownBanks && <LinkButton onClick={() => setAll(true)}>All {shape.banks} banks</LinkButton>}
        </div>
      </div>
      <DragOverlay dropAnimation={null}>{carried && <div className={styles.dragged}>{carriedName}</div>}</DragOverlay>
    </DndContext>
  );
}

const shapeOf = (facts: {
  readonly banks: number;
  readonly positions: number;
  readonly floor?: { readonly perRow: number };
}): PlanShape => ({
  banks: facts.banks,
  positions: facts.positions,
  perRow: Math.min(facts.positions, facts.floor?.perRow ?? 5),
});

/** Where in a song each slot is pressed: *1*, *3, 5*. */
function ordersOf(show: Show, song: string | null, controller: string): ReadonlyMap<string, string> {
  const orders = new Map<string, string>();
  if (song === null) return orders;
  footPath(show, song, controller).forEach((slot, i) => {
    const before = orders.get(slot.id);
    orders.set(slot.id, before === undefined ? String(i + 1) : `${before},${i + 1}`);
  });
  return orders;
}

function isMoved({ rig }: Show, slot: Slot): boolean {
  const was = Object.values(rig.slots).filter(
    (each) => each.sound === slot.sound && each.controller === slot.controller,
  );
  return !was.some((each) => each.bank === slot.bank && each.position === slot.position);
}

interface SwitchProps {
  readonly place: Place;
  readonly slotId: string | null;
  readonly name: string;
  readonly order: string;
  readonly byHand: boolean;
  readonly moved: boolean;
  readonly selected: boolean;
  readonly isHere: boolean;
  readonly carried: boolean;
  readonly target: boolean;
  readonly fixed: boolean;
  readonly onPress: () => void;
}

const Switch = memo(
  function Switch({
    place,
    slotId,
    name,
    order,
    byHand,
    moved,
    selected,
    isHere,
    carried,
    target,
    fixed,
    onPress,
  }: SwitchProps) {
    const key = `${place.bank}.${place.position}`;
    const drop = useDroppable({ id: key, data: place, disabled: fixed });
    const drag = useDraggable({
      id: `slot ${key}`,
      data: { kind: 'slot', id: slotId },
      disabled: fixed || slotId === null,
    });
    const label = slotLabel(place);
    return (
      <UnstyledButton
        ref={(node: HTMLButtonElement | null) => {
          drop.setNodeRef(node);
          drag.setNodeRef(node);
        }}
        {...drag.listeners}
        onKeyDown={undefined}
        role="gridcell"
        className={styles.switch}
        aria-label={`${label}: ${name}`}
        aria-selected={selected}
        title={slotId === null ? undefined : `${label}: ${name}${byHand ? ' (written by hand)' : ''}`}
        tabIndex={isHere ? 0 : -1}
        data-place={key}
        data-filled={slotId !== null || undefined}
        data-empty={slotId === null || undefined}
        data-carried={carried || undefined}
        data-over={drop.isOver || target || undefined}
        data-moved={moved || undefined}
        data-hand={byHand || undefined}
        onClick={onPress}
      >
        <span className={styles.number} data-number={place.position + 1} />
        <span className={styles.name}>{slotId === null ? '' : name}</span>
        <span className={styles.order} data-order={order} />
      </UnstyledButton>
    );
  },
  (before, after) =>
    (Object.keys(after) as (keyof SwitchProps)[]).every(
      (key) => key === 'onPress' || key === 'place' || before[key] === after[key],
    ),
);

function UnplacedSound({
  id,
  name,
  carried,
  onPickUp,
}: {
  readonly id: string;
  readonly name: string;
  readonly carried: boolean;
  readonly onPickUp: () => void;
}) {
  const { setNodeRef, listeners } = useDraggable({ id: `sound ${id}`, data: { kind: 'sound', id } });
  return (
    <UnstyledButton
      ref={setNodeRef}
      {...listeners}
      onKeyDown={(event: React.KeyboardEvent) => {
        if (event.key !== ' ' && event.key !== 'Enter') return;
        event.preventDefault();
        onPickUp();
      }}
      className={styles.chip}
      aria-label={`Put ${name} on a switch`}
      data-carried={carried || undefined}
    >
      {name}
    </UnstyledButton>
  );
}
