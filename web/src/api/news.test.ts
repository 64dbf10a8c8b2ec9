// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest';

// what a page has heard belongs to the module: each test has its own
let news: typeof import('./news');
beforeEach(async () => {
  vi.resetModules();
  vi.useFakeTimers();
  news = await import('./news');
});

describe('what other windows changed', () => {
  it('is asked for when it is newer than what is shown, and not before', async () => {
    const again = vi.fn(() => Promise.resolve());
    news.onNews(again);
    news.noticed(10);
    expect(again).not.toHaveBeenCalled();
    news.noticed(10);
    expect(again).not.toHaveBeenCalled();
    news.noticed(12);
    await vi.advanceTimersByTimeAsync(0);
    expect(again).toHaveBeenCalledTimes(1);
    expect(news.page.shown).toBe(12);
  });
  it('is followed no more often than once a second', async () => {
    const again = vi.fn(() => Promise.resolve());
    news.onNews(again);
    news.noticed(1);
    news.noticed(2);
    await vi.advanceTimersByTimeAsync(10);
    news.noticed(3);
    news.noticed(4);
    await vi.advanceTimersByTimeAsync(900);
    expect(again).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(200);
    expect(again).toHaveBeenCalledTimes(2);
    expect(news.page.shown).toBe(4);
  });
  it('a change is built on what was shown when the typing began', () => {
    news.noticed(5);
    expect(news.builtOn()).toBe(5);
    expect(news.asShown(3, () => news.builtOn())).toBe(3);
    expect(news.builtOn()).toBe(5);
  });
});

describe('listening', () => {
  it('asks on from where it has heard, and tells only of what is new', async () => {
    const asked: number[] = [];
    const answers = [
      { rung: 7, tape: 1 },
      { rung: 7, tape: 1 },
      { rung: 9, tape: 2 },
    ];
    const heard = vi.fn();
    news.onRing(heard);
    void news.listen((since) => {
      asked.push(since);
      const next = answers.shift();
      return next ? Promise.resolve(next) : new Promise(() => undefined);
    });
    await vi.advanceTimersByTimeAsync(1);
    // sent away without news at once, it does not ask again at once
    expect(asked).toEqual([0, 7]);
    await vi.advanceTimersByTimeAsync(1_000);
    expect(asked).toEqual([0, 7, 7, 9]);
    expect(heard).toHaveBeenCalledTimes(2);
    expect(news.rung).toEqual({ at: 9, tape: 2 });
  });
  it('tries again after a server that was out of reach', async () => {
    let calls = 0;
    void news.listen(() => (++calls === 1 ? Promise.reject(new Error('away')) : new Promise(() => undefined)));
    await vi.advanceTimersByTimeAsync(1_000);
    expect(calls).toBe(1);
    await vi.advanceTimersByTimeAsync(1_500);
    expect(calls).toBe(2);
  });
});
