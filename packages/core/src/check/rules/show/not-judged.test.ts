import { expect, test } from '@jest/globals';
import { addSong } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { buildWiring } from '../../../model/wiring.ts';
import { emptyShow } from '../../../starters/empty.ts';
import { applySteps } from '../../../change/steps.ts';
import { clean, fourCable, lead } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { unjudged, unjudgedWords } from '../../unjudged.ts';
import { notJudged } from './not-judged.ts';

const edited = (show: Show, { steps }: { readonly steps: Parameters<typeof applySteps>[1] }): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error('the edit does not apply');
  return result.value;
};

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(notJudged, {
    clean: {
      'the ordinary rig': ordinary().show,
      'a second guitar on its stand': ordinary().device('spare', 'guitar', 'Second guitar').show,
      'nothing at all: that is said above everything else': emptyShow('rig', 'Rig'),
    },
    faulty: {
      'a pedal that no cable goes to': {
        show: ordinary().device('lost', 'drive', 'Lost drive').show,
        messages: ['missing'],
      },
      'no sounds and no songs': { show: fourCable().show, messages: ['missing', 'missing'] },
      'a sound on no switch': { show: ordinary().sound('late', clean).show, messages: ['missing'] },
      'sounds on no switch, and no songs': {
        show: fourCable().sound('lead', lead).sound('clean', clean).show,
        messages: ['missing', 'missing', 'missing'],
      },
      'a song without parts': {
        show: edited(ordinary().show, addSong(ordinary().show, 'new', 'New song')),
        messages: ['missing'],
      },
    },
  });
  expect(faults).toEqual([]);
});

test('the first that is missing is the next thing to do', () => {
  const first = (show: Show) => {
    const [item] = unjudged(show, buildWiring(show.rig));
    return item && unjudgedWords(show, item);
  };
  expect(first(emptyShow('rig', 'Rig'))).toMatch(/no gear/);
  expect(first(fourCable().show)).toMatch(/no sounds/);
  expect(first(fourCable().sound('lead', lead).show)).toMatch(/Lead lies on no switch/);
  expect(first(ordinary().show)).toBeUndefined();
});
