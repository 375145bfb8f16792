import type { Command } from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import type { Show } from '../model/documents.ts';

/** Makes a show by the same commands that people use; here a refusal is a bug. */
export class ShowMaker {
  constructor(public show: Show) {}

  do(command: Command | null): this {
    if (!command) throw new Error('the command cannot be made: the sounds do not fit');
    const result = applySteps(this.show, command.steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    this.show = result.value;
    return this;
  }
}
