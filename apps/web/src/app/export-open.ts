import { exportShow } from '@yunta/core';
import type { OpenRig } from '../api/open-rig.ts';
import { download, fileName } from '../ui/download.ts';

/** The rig as it stands on the screen, edits not yet saved included; the server need not be there. */
export function exportOpen(rig: OpenRig): void {
  const { show } = rig.get();
  download(fileName(show.rig.name, 'yunta.json'), exportShow(show), 'application/json');
}
