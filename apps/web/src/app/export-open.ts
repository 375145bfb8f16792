import { exportShow } from '@yunta/core';
import type { OpenRig } from '../api/open-rig.ts';
import { download, fileName } from '../ui/download.ts';

/** The rig as it stands on the screen, edits not yet saved included; the server need not be there. */
export function exportOpen(rig: OpenRig): void {
  const { base } = rig.store.get();
  download(fileName(base.rig.name, 'yunta.json'), exportShow(base), 'application/json');
}
