import { applySteps, type Step } from '../change/steps.ts';
import type { Show } from '../model/documents.ts';

type Edit = (show: Show) => { readonly steps: readonly Step[] };

/** A show after some edits, one after the other; throws where one is refused. */
export const editedShow = (show: Show, ...edits: readonly Edit[]): Show =>
  edits.reduce((now, edit) => {
    const result = applySteps(now, edit(now).steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    return result.value;
  }, show);
