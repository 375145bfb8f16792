import type { Show } from '../model/documents.ts';
import type { Step } from '../change/steps.ts';

/**
 * What was stored or sent in version 1, as it is called now. Files of version 1 are read for ever; so are rigs that a
 * database holds, and edits that a page had not sent yet. What is of today's version comes back as the same object.
 */

/** How a value of version 1 is read: what its keys are called now, and how what stands under them is read. */
interface Migration {
  readonly renamed?: Readonly<Record<string, string>>;
  readonly fields?: Readonly<Record<string, Migration>>;
  /** Of every entry of a record or a list. */
  readonly each?: Migration;
  /** The value itself, once its keys are read. */
  readonly value?: (value: Readonly<Record<string, unknown>>) => unknown;
}

const action: Migration = {
  value: (old) => {
    if (old.kind === 'loop') return { kind: 'set', control: old.loop, value: old.to };
    return (old.kind === 'save' || old.kind === 'restore') && 'loop' in old
      ? { kind: old.kind, control: old.loop }
      : old;
  },
};
const powerUp: Migration = { value: (old) => (old.is === 'as-left' ? { ...old, is: 'last-state' } : old) };

const params: Migration = {
  renamed: { does: 'effect' },
  fields: {
    anatomy: {
      fields: {
        controls: { each: { fields: { powerUp } } },
        presets: { fields: { powerUp } },
        sections: { each: { renamed: { governedBy: 'parameters' } } },
        switches: { each: { renamed: { does: 'actions' } } },
      },
    },
  },
};

const rig: Migration = {
  fields: {
    settings: { renamed: { schools: 'conventions' } },
    devices: {
      each: {
        renamed: { countsFrom: 'firstPresetNumber', plannedFeet: 'plannedSwitches' },
        fields: {
          type: { fields: { params } },
          powerUps: { each: powerUp },
          momentaries: { each: { fields: { press: { each: action }, release: { each: action } } } },
        },
      },
    },
    slots: { each: { fields: { actions: { each: action } } } },
  },
};

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

const under = (migration: Migration, key: string): Migration | undefined => migration.fields?.[key] ?? migration.each;

function read(value: unknown, migration: Migration | undefined): unknown {
  if (!migration) return value;
  if (Array.isArray(value)) {
    const items = value.map((item) => read(item, migration.each));
    return items.every((item, i) => item === value[i]) ? value : items;
  }
  if (!isObject(value)) return value;
  const entries = Object.entries(value).map(
    ([key, entry]) => [migration.renamed?.[key] ?? key, read(entry, under(migration, key))] as const,
  );
  const isSame = entries.every(([key, entry]) => Object.hasOwn(value, key) && entry === value[key]);
  const now = isSame ? value : Object.fromEntries(entries);
  return migration.value ? migration.value(now) : now;
}

/** A document's version where it says that it is of version 1. */
const raised = (document: unknown): unknown =>
  isObject(document) && document.version === 1 ? { ...document, version: 2 } : document;

/** Data of unknown origin that may be a rig of version 1. */
export const rigOfToday = (data: unknown): unknown =>
  raised(isObject(data) && data.version === 1 ? read(data, rig) : data);

/** The same of a whole show, or of an export file. */
export function showOfToday<T>(data: T): T {
  if (!isObject(data)) return data;
  const show: Readonly<Record<string, unknown>> = data;
  const now = raised({ ...show, rig: rigOfToday(show.rig), songbook: raised(show.songbook) }) as typeof show;
  return Object.keys(now).every((key) => now[key] === show[key]) ? data : (now as T);
}

export const storedShow = (rigData: unknown, songbookData: unknown): Show =>
  showOfToday({ rig: rigData, songbook: songbookData }) as Show;

/** A step that a page of version 1 made: its place by the names of today, and so what it puts there. */
export function stepOfToday(step: Step): Step {
  if (step.doc !== 'rig') return step;
  let migration: Migration | undefined = rig;
  const at = step.at.map((key) => {
    const name = migration?.renamed?.[key] ?? key;
    migration = migration && under(migration, key);
    return name;
  });
  const now = { ...step, at } as Record<string, unknown>;
  for (const key of ['value', 'old']) if (key in now) now[key] = read(now[key], migration);
  return now as unknown as Step;
}
