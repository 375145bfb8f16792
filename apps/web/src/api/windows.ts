/**
 * What windows of one browser tell each other: that something of a rig has changed on the server, or in the storage.
 */
export interface Windows {
  readonly announce: (rig: string) => void;
  /** Listens to the other windows; returns the way to stop. */
  readonly listen: (heard: (rig: string) => void) => () => void;
}

const channel = 'yunta-rigs';
/** Every rig: all data were restored. */
export const everyRig = '*';

export function browserWindows(): Windows {
  if (typeof BroadcastChannel === 'undefined') return { announce: () => undefined, listen: () => () => undefined };
  const out = new BroadcastChannel(channel);
  return {
    announce: (rig) => out.postMessage(rig),
    listen: (heard) => {
      const hear = ({ data }: MessageEvent): void => {
        if (typeof data === 'string') heard(data);
      };
      // The channel does not tell us what we say ourselves.
      out.addEventListener('message', hear);
      return () => out.removeEventListener('message', hear);
    },
  };
}
