import type { Misreading } from '@yunta/core';

/** Why a line was not taken, and what to write instead. */
export function misreadingWords(wrong: Misreading): string {
  switch (wrong.code) {
    case 'no-type':
      return `No device is called “${wrong.typed}”, and no type has these words. Say what it is: “${wrong.typed} = drive”.`;
    case 'ambiguous':
      return `“${wrong.typed}” may be ${inWords(wrong.names, 'or')}. Write more of its name.`;
    case 'no-subject':
      return `Nothing here has “${wrong.typed}”. Write the device before it: “switcher ${wrong.typed}”.`;
    case 'no-jack':
      return wrong.typed === ''
        ? `${wrong.device} has no ${wrong.direction === 'in' ? 'input' : 'output'} for this cable.`
        : `${wrong.device} has no ${wrong.direction === 'in' ? 'input' : 'output'} “${wrong.typed}”.`;
    case 'taken':
      return (
        `${inWords(wrong.jacks, 'and')} of ${wrong.device} ${wrong.jacks.length === 1 ? 'is' : 'are'} in use. ` +
        `Name another ${wrong.direction === 'in' ? 'input' : 'output'}, or unplug it first.`
      );
    case 'no-fit':
      return `“${wrong.from}” and “${wrong.to}” do not fit each other: name the jacks.`;
    case 'not-stereo':
      return `${wrong.device} has no left and right ${wrong.direction === 'in' ? 'input' : 'output'}: write “>” for one side.`;
    case 'itself':
      return `A cable from ${wrong.device} to itself. For a second piece write “${wrong.device} 2”.`;
    case 'empty-end':
      return 'Something is missing beside an arrow or a plus: “guitar > switcher”.';
    case 'name':
      return `“${wrong.typed.slice(0, 40)}” is too long for a name, or has signs that no name can have.`;
  }
}

function inWords(names: readonly string[], word: 'and' | 'or'): string {
  const shown = names.slice(0, 4);
  if (names.length > shown.length) return `${shown.join(', ')} and ${names.length - shown.length} more`;
  return shown.length < 2 ? (shown[0] ?? '') : `${shown.slice(0, -1).join(', ')} ${word} ${shown.at(-1)}`;
}
