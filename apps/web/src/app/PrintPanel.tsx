import { Button, Checkbox, Group, Modal, SegmentedControl } from '@mantine/core';
import { sheetRows, writeRows } from '@yunta/core';
import { useState } from 'react';
import { useRig, useShow } from '../api/rig.tsx';
import { useServices } from '../api/services.tsx';
import { DataTable } from '../ui/DataTable.tsx';
import { download, fileName } from '../ui/download.ts';
import { LinkButton } from '../ui/LinkButton.tsx';
import { Notice } from '../ui/Notice.tsx';
import type { PaperSize } from '../workers/pdf-types.ts';
import { drawingOf, type Printable, printables, printedOf, sheetsOf, usuallyPrinted, usualPaper } from './printing.ts';

/** What to print, on which paper; each sheet as a table too. */
export function PrintPanel({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Modal
      opened={open}
      onClose={onClose}
      title="Print and export"
      size="lg"
      shadow="none"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      {open && <Choices onClose={onClose} />}
    </Modal>
  );
}

function Choices({ onClose }: { readonly onClose: () => void }) {
  const { show } = useShow();
  const rig = useRig();
  const { pdf: pdfs, judge } = useServices();
  const [chosen, setChosen] = useState<ReadonlySet<Printable>>(new Set(usuallyPrinted));
  const [paper, setPaper] = useState<PaperSize>(usualPaper(navigator.language));
  const [state, setState] = useState<'idle' | 'printing' | { readonly reason: string }>('idle');
  const toggle = (what: Printable) => {
    const next = new Set(chosen);
    if (!next.delete(what)) next.add(what);
    setChosen(next);
  };
  const opened = async () => {
    const [played, feet] = await Promise.all([judge().partPlans(rig.id), judge().footPlan(rig.id)]);
    return { ...rig.get(), played, resets: feet?.resets ?? [] };
  };
  const print = async () => {
    setState('printing');
    try {
      const kinds = printables.map(([what]) => what).filter((what) => chosen.has(what));
      const date = new Date().toLocaleDateString(undefined, { dateStyle: 'medium' });
      const foot = { rig: show.rig.name, revision: rig.store.get().revision, date };
      const pdf = await pdfs().print(printedOf(await opened(), kinds), paper, foot);
      download(fileName(show.rig.name, 'pdf'), pdf as BlobPart, 'application/pdf');
      onClose();
    } catch (reason) {
      setState({ reason: reason instanceof Error ? reason.message : String(reason) });
    }
  };
  const saveTable = async (what: Printable, name: string) => {
    const title = `${show.rig.name} ${name.toLowerCase()}`;
    if (what === 'drawing') return download(fileName(title, 'svg'), drawingOf(await opened()), 'image/svg+xml');
    const [first, ...more] = sheetsOf(await opened(), what);
    const rows = [...(first ? sheetRows(first) : []), ...more.flatMap((sheet) => [[], ...sheetRows(sheet)])];
    download(fileName(title, 'csv'), writeRows(rows), 'text/csv');
  };
  return (
    <>
      {typeof state === 'object' && <Notice tone="refusal">The PDF could not be made: {state.reason}</Notice>}
      <DataTable label="What can be printed">
        <tbody>
          {printables.map(([what, name, says]) => (
            <tr key={what}>
              <td>
                <Checkbox
                  label={name}
                  description={says}
                  checked={chosen.has(what)}
                  onChange={() => toggle(what)}
                  my={4}
                />
              </td>
              <td style={{ width: 60 }}>
                <LinkButton
                  aria-label={`${name} as ${what === 'drawing' ? 'SVG' : 'CSV'}`}
                  onClick={() => void saveTable(what, name)}
                >
                  {what === 'drawing' ? 'SVG' : 'CSV'}
                </LinkButton>
              </td>
            </tr>
          ))}
        </tbody>
      </DataTable>
      <Group justify="space-between" mt="md">
        <SegmentedControl
          aria-label="Paper"
          size="xs"
          value={paper}
          onChange={(value) => setPaper(value as PaperSize)}
          data={[
            { value: 'A4', label: 'A4' },
            { value: 'LETTER', label: 'Letter' },
          ]}
        />
        <Button loading={state === 'printing'} disabled={chosen.size === 0} onClick={() => void print()} data-autofocus>
          Make the PDF
        </Button>
      </Group>
    </>
  );
}
