import {
  anatomyDifferences,
  anatomyOf,
  commands,
  type Device,
  type DeviceType,
  differencesBetween,
  isDeclared,
  settingWords,
  takeType,
  typeDifferences,
  typeOfToday,
} from '@yunta/core';
import { useLibrary } from '../../api/library.ts';
import { useShow } from '../../api/rig.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { KeepButton } from './KeepButton.tsx';
import { isOwn } from './own-id.ts';

/** Which type it was entered as, where it differs from that, and what a later revision of it would change. */
export function TypeNote({ device }: { readonly device: Device }) {
  const { entries } = useLibrary();
  const { type } = device;
  const today = typeOfToday(type, entries);
  const isLater = today !== undefined && today.revision > type.revision;
  return (
    <div className="soft" style={{ fontSize: 12 }}>
      {type.name}: {kindWords(type, entries.find((entry) => entry.type.id === type.id)?.source)}
      {isLater ? (
        <LaterRevision device={device} today={today} />
      ) : isDeclared(type) ? (
        today && <Inside type={type} base={today} label="Differs from its type" />
      ) : (
        <Differences device={device} />
      )}
    </div>
  );
}

/** `source`: where the library has its typical values from; undefined where it has no such type. */
function kindWords(type: DeviceType, source: string | undefined): string {
  if (!isOwn(type.id)) return source === undefined ? 'a type of its own' : `generic, typical values (${source})`;
  return `your own type, revision ${type.revision}${source === undefined ? ', not kept in your library' : ''}`;
}

const list = { margin: '4px 0 0', paddingLeft: 16 };

/** Setting by setting, each back to what is typical with one press. */
function Differences({ device }: { readonly device: Device }) {
  const { show, run } = useShow();
  const { entries } = useLibrary();
  const differences = typeDifferences(device.type, entries) ?? [];
  if (differences.length === 0) return null;
  return (
    <>
      <ul aria-label="Differs from its type" style={list}>
        {differences.map(({ param, label, typical, is }) => (
          <li key={param}>
            {label}: {settingWords(is)}, typically {settingWords(typical)}{' '}
            <LinkButton
              aria-label={`${label} as typical`}
              onClick={() => run(commands.setParam(show, device.id, param, typical))}
            >
              as typical
            </LinkButton>
          </li>
        ))}
      </ul>
      <KeepButton id={device.id} />
    </>
  );
}

/** What the later revision would change; taken with one press, as one edit. */
function LaterRevision({ device, today }: { readonly device: Device; readonly today: DeviceType }) {
  const { show, run } = useShow();
  const { type } = device;
  const settings = isDeclared(today) || isDeclared(type) ? [] : differencesBetween(today, type);
  return (
    <div role="group" aria-label="A later revision of its type">
      Revision {today.revision} is there
      {isDeclared(today) || isDeclared(type) ? (
        <Inside type={today} base={type} label="What it changes" />
      ) : (
        <ul aria-label="What it changes" style={list}>
          {settings.map(({ param, label, typical, is }) => (
            <li key={param}>
              {label}: {settingWords(is)} instead of {settingWords(typical)}
            </li>
          ))}
        </ul>
      )}
      <LinkButton onClick={() => run(takeType(show, device.id, today))}>Take revision {today.revision}</LinkButton>
    </div>
  );
}

/** What is inside one and not in the other, list by list. */
function Inside({
  type,
  base,
  label,
}: {
  readonly type: DeviceType;
  readonly base: DeviceType;
  readonly label: string;
}) {
  const differences = anatomyDifferences(anatomyOf(type), anatomyOf(base));
  if (differences.length === 0) return null;
  return (
    <ul aria-label={label} style={list}>
      {differences.flatMap(({ list: name, added, gone }) => [
        ...added.map((line) => (
          <li key={`${name} + ${line}`}>
            {name}: with {line}
          </li>
        )),
        ...gone.map((line) => (
          <li key={`${name} - ${line}`}>
            {name}: without {line}
          </li>
        )),
      ])}
    </ul>
  );
}
