import type { Body } from '../model/body.ts';
import type { DeviceType } from '../model/rig.ts';

/** Outlines and weights by archetype and id: typical sizes (common practice), each to be measured. */

const body = (
  width: number,
  depth: number,
  height: number,
  grams: number,
  jacks?: NonNullable<Body['jacks']>,
): Body => ({ from: 'typical', width, depth, height, grams, ...(jacks ? { jacks } : {}) });

const byId: Readonly<Record<string, Body>> = {
  tuner: body(70, 120, 55, 300),
  wah: body(100, 255, 80, 1_500),
  'volume-pedal': body(95, 250, 75, 1_300),
  'volume-stereo': body(95, 250, 75, 1_400),
  'volume-active': body(95, 250, 75, 1_400),
  'volume-low': body(95, 250, 75, 1_300),
  buffer: body(40, 95, 50, 150),
  'tape-echo': body(300, 200, 130, 5_000, 'back'),
  'drive-2': body(120, 120, 55, 500),
  'drive-2-remote': body(120, 120, 55, 500),
  'looper-pedal': body(75, 125, 60, 400),
  'switcher-4': body(230, 90, 60, 1_000, 'back'),
  'switcher-6': body(350, 100, 60, 1_500, 'back'),
  'switcher-8': body(430, 110, 60, 2_000, 'back'),
  'switcher-10': body(480, 120, 60, 2_400, 'back'),
  'switcher-12': body(520, 130, 60, 2_800, 'back'),
  'switcher-stereo-8': body(450, 130, 60, 2_500, 'back'),
  'switcher-stereo-4': body(300, 110, 60, 1_500, 'back'),
  'switcher-8-beside': body(430, 120, 60, 2_200, 'back'),
  'switcher-8-orders': body(450, 130, 60, 2_400, 'back'),
  'switcher-10-ends': body(500, 130, 60, 2_600, 'back'),
  'foot-controller': body(330, 130, 60, 1_500, 'back'),
  'foot-controller-10': body(480, 160, 60, 2_300, 'back'),
  'contact-switch': body(100, 60, 40, 300, 'back'),
  'tempo-box': body(70, 120, 55, 350),
  expression: body(95, 240, 75, 1_100, 'back'),
  'expression-2': body(95, 250, 75, 1_200, 'back'),
  'midi-through-box': body(110, 60, 35, 250, 'back'),
  'midi-merger': body(110, 60, 35, 250, 'back'),
  'valve-combo': body(560, 260, 480, 18_000, 'back'),
  'valve-combo-direct': body(560, 260, 480, 18_500, 'back'),
  'valve-amp-1': body(480, 250, 430, 14_000, 'back'),
  'valve-head-3': body(650, 260, 260, 16_000, 'back'),
  'transistor-combo': body(480, 260, 430, 12_000, 'back'),
  'bass-amp': body(480, 300, 480, 15_000, 'back'),
  'acoustic-amp': body(350, 280, 380, 9_000, 'back'),
  cabinet: body(620, 300, 520, 16_000, 'back'),
  'cabinet-stereo': body(760, 360, 760, 35_000, 'back'),
  'power-amp': body(220, 200, 60, 2_000, 'back'),
  'power-amp-stereo': body(300, 250, 70, 3_000, 'back'),
  'load-box': body(200, 180, 90, 2_200, 'back'),
  'load-box-through': body(200, 180, 90, 2_200, 'back'),
  'tap-box': body(120, 100, 50, 700, 'back'),
  supply: body(190, 90, 35, 900, 'back'),
  'supply-4': body(120, 80, 35, 450, 'back'),
  'supply-12': body(270, 90, 35, 1_300, 'back'),
  'supply-rail': body(110, 70, 35, 350, 'back'),
  'battery-supply': body(170, 90, 45, 900, 'back'),
  adapter: body(70, 45, 80, 200, 'back'),
  'adapter-ac': body(80, 60, 70, 500, 'back'),
  'outlet-strip': body(400, 60, 50, 700, 'top'),
  receiver: body(210, 150, 45, 1_000, 'back'),
  'edge-panel': body(150, 45, 45, 400, 'back'),
  'edge-panel-midi': body(220, 45, 45, 600, 'back'),
  'entry-box': body(140, 60, 45, 400, 'back'),
  'direct-box': body(100, 130, 50, 700, 'sides'),
};

const byArchetype: Readonly<Record<string, Body>> = {
  pedal: body(70, 120, 55, 400),
  tuner: body(70, 120, 55, 300),
  'midi-effect': body(145, 130, 60, 800, 'back'),
  modeller: body(400, 200, 75, 3_500, 'back'),
  'looping-station': body(430, 180, 75, 3_500, 'back'),
  splitter: body(100, 100, 45, 350),
  selector: body(120, 90, 45, 400),
  router: body(140, 100, 50, 500, 'back'),
  preamp: body(145, 125, 60, 700, 'back'),
  mixer: body(150, 110, 50, 600, 'back'),
  'direct-box': body(100, 130, 50, 700),
  'band-split': body(120, 100, 50, 500),
  isolator: body(80, 60, 40, 250),
  panel: body(150, 50, 50, 400, 'back'),
  'cabinet-simulation': body(120, 110, 50, 500, 'back'),
  'midi-through-box': body(110, 60, 35, 250, 'back'),
  'midi-merger': body(110, 60, 35, 250, 'back'),
};

/** What a type usually measures; undefined for what stands on no board: instruments, lines to the desk. */
export function bodyOfType({ id, archetype }: Pick<DeviceType, 'id' | 'archetype'>): Body | undefined {
  if (Object.hasOwn(byId, id)) return byId[id];
  return Object.hasOwn(byArchetype, archetype) ? byArchetype[archetype] : undefined;
}
