import { expect, test } from '@jest/globals';
import { buildWiring, demoShow, inOrder, Tracer } from '@yunta/core';
import { layWeave } from './signal-diagram-layout.ts';
import { diagramSvg } from './signal-diagram-svg.ts';

test('the drawing names every piece of the run and what hangs in loops that are off, with nothing unescaped', () => {
  const demo = demoShow();
  const devices = { ...demo.rig.devices, echo: { ...demo.rig.devices['echo'], name: 'Echo <&> "2"' } };
  const rig = { ...demo.rig, devices } as typeof demo.rig;
  const wiring = buildWiring(rig);
  const tracer = new Tracer(wiring);
  for (const sound of inOrder(rig.sounds)) {
    const trace = tracer.trace(sound as never);
    const svg = diagramSvg(layWeave(wiring, trace, 900));
    expect(svg.match(/<path [^>]*stroke-width="3.5"/g)!.length).toBeGreaterThanOrEqual(trace.passes.length);
    for (const device of ['Compressor', 'Guitar', 'Cabinet']) expect(svg).toContain(device);
    expect(svg).not.toContain('<&>');
    expect(svg.split('<svg').length).toBe(2);
  }
});
