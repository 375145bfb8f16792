import { splitRef } from '../model/documents.ts';
import { controlLabel, panelNumber } from '../model/labels.ts';
import type { Rig } from '../model/rig.ts';
import { slotPlace } from '../model/slots.ts';
import type { Wiring } from '../model/wiring.ts';

/** Where in a rig a change is, as people say it: *Combo channel in Lead*, *cable C07*, *Delay, preset 5*. */
export function placeWords(wiring: Wiring, at: readonly string[]): string {
  const { rig } = wiring;
  const [collection, id, field, key] = at;
  const more = field === undefined ? '' : `, ${fieldWords(field)}`;
  switch (collection) {
    case 'devices': {
      const name = nameIn(rig, 'devices', id);
      if (field === 'presets' && key !== undefined) return `${name}, preset ${panelNumber(wiring, id, Number(key))}`;
      return `${name}${more}`;
    }
    case 'cables':
      return `cable ${rig.cables[id]?.tag ?? id}${more}`;
    case 'sounds': {
      const name = nameIn(rig, 'sounds', id);
      if (key === undefined) return `${name}${more}`;
      if (field === 'pedals') return `${nameIn(rig, 'devices', key)} in ${name}`;
      return `${key.includes('/') && wiring.device.has(splitRef(key).device) ? controlLabel(wiring, key) : key} in ${name}`;
    }
    case 'slots':
      return `${Object.hasOwn(rig.slots, id) ? slotPlace(rig.slots[id]) : `slot ${id}`}${more}`;
    case 'casting':
      return 'what a part plays';
    case 'places':
      return `place ${nameIn(rig, 'places', id)}`;
    case 'variants':
      return 'the whole variant';
    default:
      return fieldWords(collection);
  }
}

const nameIn = (rig: Rig, collection: 'devices' | 'sounds' | 'places', id: string): string =>
  Object.hasOwn(rig[collection], id) ? rig[collection][id].name : id;

const fieldWords = (field: string): string => field.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);
