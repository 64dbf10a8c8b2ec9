// @vitest-environment jsdom
import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { expect, it } from 'vitest';
import { useHeld } from './useHeld';

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

type Keep = (edit: (held: string[]) => string[]) => Promise<void>;

/** The hook in a page that shows `value`; `sent` are its questions, each answered or refused by hand. */
function page() {
  const sent: { list: string[]; answer: () => void; refuse: () => void }[] = [];
  let keep: Keep = () => Promise.resolve();
  function Probe({ value }: { value: string[] }) {
    // oxlint-disable-next-line react/globals -- the test takes hold of it
    keep = useHeld(
      value,
      (list) =>
        new Promise((resolve, reject) =>
          sent.push({ list, answer: () => resolve(undefined), refuse: () => reject(new Error('no')) }),
        ),
    );
    return null;
  }
  const root = createRoot(document.createElement('div'));
  const show = (value: string[]) => act(() => root.render(<Probe value={value} />));
  return { sent, show, keep: (edit: (held: string[]) => string[]) => keep(edit) };
}

it('typed quickly, none takes back the one before', () => {
  const { sent, show, keep } = page();
  show([]);
  void keep((held) => [...held, 'a']);
  void keep((held) => [...held, 'b']);
  expect(sent.map((one) => one.list)).toEqual([['a'], ['a', 'b']]);
});

it('what was refused is not built on, and the refusal is told', async () => {
  const { sent, show, keep } = page();
  show(['a']);
  const first = keep((held) => [...held, 'bad']);
  sent[0]!.refuse();
  await expect(first).rejects.toThrow('no');
  void keep((held) => [...held, 'b']);
  expect(sent[1]!.list).toEqual(['a', 'b']);
});

it("once all is answered the page's own list counts again", async () => {
  const { sent, show, keep } = page();
  show(['a']);
  const first = keep((held) => [...held, 'b']);
  sent[0]!.answer();
  await first;
  show(['from another window']);
  void keep((held) => [...held, 'c']);
  expect(sent[1]!.list).toEqual(['from another window', 'c']);
});

it('the page may be drawn once more with the list of before the answer', async () => {
  const { sent, show, keep } = page();
  show([]);
  const first = keep((held) => [...held, 'a']);
  const second = keep((held) => [...held, 'b']);
  sent[0]!.answer();
  await first;
  show(['a']);
  sent[1]!.answer();
  await second;
  // of the second answer the page does not know yet
  show(['a']);
  void keep((held) => [...held, 'c']);
  expect(sent[2]!.list).toEqual(['a', 'b', 'c']);
});

it('after a refusal it is built on what another window has made of it meanwhile', async () => {
  const { sent, show, keep } = page();
  show(['a']);
  const mine = keep((held) => [...held, 'mine']);
  // heard of while the answer is on its way
  show(['a', 'theirs']);
  sent[0]!.refuse();
  await expect(mine).rejects.toThrow('no');
  show(['a', 'theirs']);
  void keep((held) => [...held, 'mine']);
  expect(sent[1]!.list).toEqual(['a', 'theirs', 'mine']);
});
