export { compareSeed, seededShow } from './compare.ts';
export { runOracle } from './oracle-main.ts';
export { answerRecallCase } from './recall-cases.ts';
export { adaptCase } from './recall-adapter.ts';
export { Random } from './random.ts';
export { answerReference, compareReference } from './reference.ts';
export { documentRig, kernelRig, proveCompiled, retraceRig, type LargeRig } from './large-rigs.ts';
