import { expose } from 'comlink';
import { Planning } from './planning.ts';
import { turn } from './turn.ts';

class PlanWorker extends Planning {}

export type PlanApi = PlanWorker;
expose(new PlanWorker(turn));
