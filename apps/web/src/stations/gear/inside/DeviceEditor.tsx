import { Button } from '@mantine/core';
import { nameType } from '@yunta/core';
import { useShow } from '../../../api/rig.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { StationHead } from '../../../ui/StationHead.tsx';
import { KeepButton } from '../KeepButton.tsx';
import { ControlList } from './ControlList.tsx';
import styles from './inside.module.css';
import { JackList } from './JackList.tsx';
import { MessageList } from './MessageList.tsx';
import { PathList } from './PathList.tsx';
import { SchematicPicture } from './SchematicPicture.tsx';
import { SwitchList } from './SwitchList.tsx';
import { useInside } from './use-inside.ts';

/** What one device is made of, list by list. */
export function DeviceEditor({ id, onClose }: { readonly id: string; readonly onClose: () => void }) {
  const { show, attempt } = useShow();
  const inside = useInside(id);
  const { device, anatomy } = inside;
  return (
    <>
      <StationHead
        name={`Inside ${device.name}`}
        startAt={['[aria-label="Name of a new jack"]']}
        question="What goes in and out, what happens between, and what moves it?"
      >
        <KeepButton id={id} />
        <Button variant="default" onClick={onClose}>
          Back to the gear
        </Button>
      </StationHead>
      <p style={{ display: 'flex', gap: 8, alignItems: 'baseline', margin: '0 0 8px' }}>
        <span className="soft">Type</span>
        <span style={{ minWidth: 260 }}>
          <InlineField
            label="Name of the type"
            look="boxed"
            value={device.type.name}
            onCommit={(name) => (name === '' ? 'A type needs a name.' : attempt(nameType(show, id, name)))}
          />
        </span>
        <span className="soft num">revision {device.type.revision}</span>
      </p>
      <div className={styles.grid}>
        <div className={styles.pair}>
          <SchematicPicture anatomy={anatomy} name={device.name} />
          <JackList {...inside} />
        </div>
        <PathList {...inside} />
        <ControlList {...inside} />
        <div className={styles.pair}>
          <MessageList {...inside} />
          <SwitchList {...inside} />
        </div>
      </div>
    </>
  );
}
