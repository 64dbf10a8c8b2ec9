// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { letGo, watchPresses } from './press';

watchPresses(document);

beforeEach(() => {
  vi.useFakeTimers();
  document.body.innerHTML = '<button><span>Keep</span></button><svg><path /></svg>';
});
afterEach(() => vi.useRealTimers());

const tell = (what: string, kind: string) =>
  document.querySelector(what)!.dispatchEvent(new Event(kind, { bubbles: true }));

/** Whether an answer that is there now would go on at once. */
async function goesOn() {
  let on = false;
  void letGo().then(() => (on = true));
  await vi.advanceTimersByTimeAsync(0);
  return on;
}

it('nothing is held while nothing is pressed', async () => {
  expect(await goesOn()).toBe(true);
});

it('an answer waits for the button to be let go, and for its click', async () => {
  tell('span', 'pointerdown');
  expect(await goesOn()).toBe(false);
  const order: string[] = [];
  void letGo().then(() => order.push('answer'));
  tell('span', 'pointerup');
  tell('span', 'click');
  await Promise.resolve();
  order.push('click done');
  await vi.advanceTimersByTimeAsync(1);
  expect(order).toEqual(['click done', 'answer']);
});

it('a press that is held on holds no answer back for long', async () => {
  tell('button', 'pointerdown');
  await vi.advanceTimersByTimeAsync(699);
  expect(await goesOn()).toBe(false);
  await vi.advanceTimersByTimeAsync(1);
  expect(await goesOn()).toBe(true);
});

it('what is dragged holds nothing back', async () => {
  tell('path', 'pointerdown');
  expect(await goesOn()).toBe(true);
});

it('a press that ended elsewhere ends with the next one', async () => {
  tell('button', 'pointerdown');
  const first = letGo();
  tell('path', 'pointerdown');
  await expect(first).resolves.toBeUndefined();
  expect(await goesOn()).toBe(true);
});
