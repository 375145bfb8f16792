export {
  arrangedCable,
  arrangedWalk,
  billTotal,
  boardArea,
  boardWeight,
  cableRun,
  caseWeight,
  partBought,
  songsLost,
  weightAlong,
} from './build.ts';
export { allDrawn, batteryLasts, limitTaken, outputDrawn, outputUsed, wallCurrent, wallTaken } from './power.ts';
export { presetOnPanel, presetOnWire } from './numbers.ts';
export { loopGain, passesOf } from './run.ts';
export { arrivedAfter, bytesSent, delayTime, footWay, latencyInside, wireTime } from './times.ts';
export { accidental, explored, recalled, shortestWay } from './verdicts.ts';
