import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { type ReactElement, useState } from 'react';
import { CellSelect } from './CellSelect.tsx';
import { Confirm } from './Confirm.tsx';
import { DataTable } from './DataTable.tsx';
import { Fold } from './Fold.tsx';
import { InlineField } from './InlineField.tsx';
import { LinkButton } from './LinkButton.tsx';
import { Notice } from './Notice.tsx';
import { Reorder, useReorderRow } from './Reorder.tsx';

const user = userEvent.setup();
const show = (element: ReactElement) => render(<MantineProvider env="test">{element}</MantineProvider>);
afterEach(cleanup);

describe('a value edited in place', () => {
  const field = (onCommit: (text: string) => string | null) => (
    <InlineField label="Tempo" value="120" unit="bpm" onCommit={onCommit} />
  );
  const input = () => screen.getByRole('textbox', { name: 'Tempo' }) as HTMLInputElement;

  test('Enter takes it, once; what was only typed back is not taken', async () => {
    const commit = jest.fn<(text: string) => string | null>(() => null);
    show(field(commit));
    await user.clear(input());
    await user.type(input(), '96{Enter}');
    expect(commit.mock.calls).toEqual([['96']]);
    await user.clear(input());
    await user.type(input(), '120');
    await user.tab();
    expect(commit).toHaveBeenCalledTimes(1);
  });

  test('leaving takes it, Escape gives it up', async () => {
    const commit = jest.fn<(text: string) => string | null>(() => null);
    show(field(commit));
    await user.clear(input());
    await user.type(input(), '7{Escape}');
    expect([input().value, commit.mock.calls.length]).toEqual(['120', 0]);
    await user.clear(input());
    await user.type(input(), '88');
    await user.tab();
    expect(commit.mock.calls).toEqual([['88']]);
  });

  test('what is refused stays, marked, with its reason, until it is given up', async () => {
    show(field(() => 'A tempo is 20 to 400.'));
    await user.clear(input());
    await user.type(input(), '999{Enter}');
    expect(input().value).toBe('999');
    expect((await screen.findByRole('alert')).textContent).toContain('A tempo is 20 to 400.');
    expect(input().getAttribute('aria-invalid')).toBe('true');
    expect(input().getAttribute('aria-describedby')).toBe(screen.getByRole('alert').id);
    await user.click(screen.getByRole('button', { name: 'Give up' }));
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(input().value).toBe('120');
  });

  test('a value that comes from elsewhere shows; gone with its station, what was typed is taken', async () => {
    const commit = jest.fn<(text: string) => string | null>(() => null);
    const { rerender, unmount } = show(field(commit));
    rerender(
      <MantineProvider env="test">
        <InlineField label="Tempo" value="132" onCommit={commit} />
      </MantineProvider>,
    );
    expect(input().value).toBe('132');
    await user.type(input(), '5');
    unmount();
    expect(commit.mock.calls).toEqual([['1325']]);
  });
});

describe('one of several', () => {
  const choices = ['clean', 'lead', 'crunch'].map((value) => ({ value, label: value }));
  test('keys that come before the list has the focus find and pick all the same', () => {
    const pick = jest.fn();
    show(<CellSelect label="Channel" value="clean" choices={choices} onPick={pick} />);
    const button = screen.getByRole('combobox', { name: 'Channel' });
    for (const key of ['l', 'e', 'Enter']) fireEvent.keyDown(button, { key });
    expect(pick.mock.calls).toEqual([['lead']]);
    expect(screen.queryByRole('listbox')).toBeNull();
    // Of what is called like nothing that there is nothing is picked, and the list stays to mend it.
    for (const key of ['x', 'Enter']) fireEvent.keyDown(button, { key });
    expect(pick).toHaveBeenCalledTimes(1);
  });
  test('typing finds, Enter picks, and the focus comes back to its button', async () => {
    const pick = jest.fn();
    show(<CellSelect label="Channel" value="clean" choices={choices} onPick={pick} />);
    const button = screen.getByRole('combobox', { name: 'Channel' });
    expect([button.textContent, button.getAttribute('aria-expanded')]).toEqual(['clean', 'false']);
    button.focus();
    await user.keyboard('l');
    const options = within(await screen.findByRole('listbox')).getAllByRole('option');
    expect(options.map((option) => option.textContent)).toContain('lead');
    await user.click(options.find((option) => option.textContent === 'lead')!);
    expect(pick.mock.calls).toEqual([['lead']]);
    await waitFor(() => expect(document.activeElement).toBe(button));
  });

  test('what is none of them shows its place, and what was chosen already is no choice', async () => {
    const pick = jest.fn();
    show(<CellSelect label="Role" value="gone" choices={choices} onPick={pick} placeholder="no role" />);
    expect(screen.getByRole('combobox', { name: 'Role' }).textContent).toBe('no role');
    cleanup();
    show(<CellSelect label="Role" value="lead" choices={choices} onPick={pick} autoOpen />);
    const options = within(await screen.findByRole('listbox')).getAllByRole('option');
    await user.click(options.find((option) => option.textContent === 'lead')!);
    expect(pick).not.toHaveBeenCalled();
  });
});

test('something that cannot be undone is asked for, and left as it is at the first key', async () => {
  const does = jest.fn();
  const Asking = () => {
    const [open, setOpen] = useState(true);
    return (
      <Confirm title="Delete the rig?" does="Delete" open={open} onConfirm={does} onClose={() => setOpen(false)}>
        It is gone then.
      </Confirm>
    );
  };
  show(<Asking />);
  const dialog = await screen.findByRole('dialog', { name: 'Delete the rig?' });
  expect(dialog.textContent).toContain('It is gone then.');
  await user.click(within(dialog).getByRole('button', { name: 'Leave as it is' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(does).not.toHaveBeenCalled();
  cleanup();
  show(<Asking />);
  await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Delete' }));
  expect(does).toHaveBeenCalledTimes(1);
});

test('what is seldom needed is behind its heading, and not there before', async () => {
  show(<Fold title="Settings">Level switch: line</Fold>);
  const heading = screen.getByRole('button', { name: 'Settings' });
  expect([heading.getAttribute('aria-expanded'), screen.queryByText('Level switch: line')]).toEqual(['false', null]);
  await user.click(heading);
  expect(heading.getAttribute('aria-expanded')).toBe('true');
  expect(screen.getByText('Level switch: line')).toBeTruthy();
});

test('a refusal is said at once, a notice when there is time, and each can be dismissed', async () => {
  const dismissed = jest.fn();
  show(
    <>
      <Notice tone="refusal">No.</Notice>
      <Notice onDismiss={dismissed}>By the way.</Notice>
    </>,
  );
  expect(screen.getByRole('alert').textContent).toBe('No.');
  expect(screen.getByRole('status').textContent).toContain('By the way.');
  await user.click(screen.getByRole('button', { name: 'Dismiss' }));
  expect(dismissed).toHaveBeenCalledTimes(1);
});

test('a table has its name and headings; an empty heading is none', () => {
  show(
    <DataTable label="Cables" columns={[{ head: 'Tag' }, { head: '' }, { head: 'Length', width: 80 }]}>
      <tr>
        <td>C01</td>
      </tr>
    </DataTable>,
  );
  const table = screen.getByRole('table', { name: 'Cables' });
  expect(
    within(table)
      .getAllByRole('columnheader')
      .map((head) => head.textContent),
  ).toEqual(['Tag', 'Length']);
});

test('a button that reads as a link is a button', async () => {
  const does = jest.fn();
  show(<LinkButton onClick={does}>Split</LinkButton>);
  await user.click(screen.getByRole('button', { name: 'Split' }));
  expect(does).toHaveBeenCalledTimes(1);
});

describe('rows in an order', () => {
  const drawn: string[] = [];
  const Row = ({ id }: { readonly id: string }) => {
    drawn.push(id);
    const { ref, onKeyDown, grip } = useReorderRow(id, id);
    return (
      <div ref={ref} onKeyDown={onKeyDown}>
        {grip}
      </div>
    );
  };
  test('Alt and an arrow puts a row elsewhere; at an end it stays', async () => {
    const moves: (readonly [string, string | null])[] = [];
    show(
      <Reorder ids={['a', 'b', 'c']} onMove={(id, next) => moves.push([id, next])}>
        {['a', 'b', 'c'].map((id) => (
          <Row key={id} id={id} />
        ))}
      </Reorder>,
    );
    screen.getByRole('button', { name: 'Move b' }).focus();
    await user.keyboard('{Alt>}{ArrowUp}{ArrowDown}{/Alt}');
    screen.getByRole('button', { name: 'Move a' }).focus();
    await user.keyboard('{Alt>}{ArrowUp}{/Alt}');
    expect(moves).toEqual([
      ['b', 'a'],
      ['b', null],
    ]);
  });

  test('an edit elsewhere draws no row again: the order is the same one', () => {
    const rows = ['a', 'b'].map((id) => <Row key={id} id={id} />);
    const list = (ids: readonly string[]) => (
      <MantineProvider env="test">
        <Reorder ids={ids} onMove={() => undefined}>
          {rows}
        </Reorder>
      </MantineProvider>
    );
    const { rerender } = render(list(['a', 'b']));
    drawn.length = 0;
    rerender(list(['a', 'b']));
    expect(drawn).toEqual([]);
    rerender(list(['b', 'a']));
    expect(drawn.length).toBeGreaterThan(0);
  });
});
