import { cueSheet, patchList, worksheet } from '@yunta/core';
import { useState } from 'react';
import { useRig } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import { download, fileName } from '../../ui/download.ts';

/** Makes the paper of the rig as it is now: patch, worksheet, cue sheet. */
export function usePrint(): { readonly print: () => Promise<void>; readonly printing: boolean } {
  const rig = useRig();
  const { pdf: pdfs } = useServices();
  const [printing, setPrinting] = useState(false);
  const print = async () => {
    const { show, wiring, store } = rig.get();
    setPrinting(true);
    try {
      const paper = /US|CA|MX/.test(navigator.language) ? 'LETTER' : 'A4';
      const sheets = [patchList(show, wiring), worksheet(show, wiring), cueSheet(show, wiring)];
      const pdf = await pdfs().print(sheets, paper);
      download(fileName(show.rig.name, 'pdf'), pdf as BlobPart, 'application/pdf');
    } catch (reason) {
      store.refuse(`The PDF could not be made: ${reason instanceof Error ? reason.message : String(reason)}`);
    } finally {
      setPrinting(false);
    }
  };
  return { print, printing };
}
