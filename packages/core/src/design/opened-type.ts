import { anatomyOf } from '../model/archetypes/registry.ts';
import { declared } from '../model/archetypes/declared.ts';
import type { DeviceType } from '../model/rig.ts';

export const isDeclared = (type: DeviceType): boolean => type.archetype === declared.id;

/**
 * The same device with all that is inside written out, so that each thing of it can be changed. It behaves as before;
 * the settings of its archetype are gone. `id`: what the type is known by from now on.
 */
export const openedType = (type: DeviceType, id: string): DeviceType =>
  isDeclared(type)
    ? type
    : {
        id,
        revision: 1,
        name: type.name,
        archetype: declared.id,
        // Through JSON: as a file would hold it, without fields that hold nothing.
        params: { anatomy: JSON.parse(JSON.stringify(anatomyOf(type))) as unknown },
        ...factsOf(type),
      };

/** What a type says of power, outline and price: none of it is inside. */
export const factsOf = ({ power, body, buy }: DeviceType): Pick<DeviceType, 'power' | 'body' | 'buy'> => ({
  ...(power ? { power } : {}),
  ...(body ? { body } : {}),
  ...(buy ? { buy } : {}),
});

export const withAnatomy = (type: DeviceType, anatomy: unknown): DeviceType => ({ ...type, params: { anatomy } });
