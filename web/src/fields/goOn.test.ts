// @vitest-environment jsdom
import { expect, it } from 'vitest';
import { goOn } from './goOn';

const field = (name: string) => {
  const one = document.createElement('input');
  one.dataset['entry'] = '';
  one.name = name;
  // jsdom draws nothing: what is shown has a box
  one.getClientRects = () => (name.startsWith('hidden') ? [] : [{}]) as unknown as DOMRectList;
  return one;
};

it('Enter goes to the next field that is shown, and never out of the page', () => {
  const main = document.createElement('main');
  const [a, hidden, b] = [field('a'), field('hidden'), field('b')];
  main.append(a, hidden, b);
  document.body.append(main, field('elsewhere'));
  a.focus();
  goOn(a);
  expect(document.activeElement).toBe(b);
  goOn(b);
  expect(document.activeElement).toBe(b);
});
