import { Drawer, Input, Popover } from 'antd';
import { Fragment, useMemo, useState } from 'react';
import type { Choices } from '../api/client';
import { useChoices } from '../api/hooks';

type Word = Choices['glossary'][number];

const escaped = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

const Means = ({ word }: { word: Word }) => (
  <div className="word-means">
    {word.means}
    {word.also.length > 0 && <p className="quiet">Also called: {word.also.join(', ')}.</p>}
  </div>
);

/** The glossary as a pattern, the longest words first, and each of its words by the way it stands in a text. */
function useWords() {
  const words = useChoices()?.glossary;
  return useMemo(() => {
    if (!words) return undefined;
    const longest = words.map((w) => escaped(w.word)).toSorted((a, b) => b.length - a.length);
    const find = (text: string) => words.find((w) => [w.word, `${w.word}s`].includes(text.toLowerCase()));
    return { pattern: new RegExp(`\\b((?:${longest.join('|')})s?)\\b`, 'i'), find };
  }, [words]);
}

/** Beside the label of a field: what a word of the trade in it means. By keys it is found under Words. */
export function AskWord({ text }: { text: string }) {
  const words = useWords();
  const match = words?.pattern.exec(text);
  const word = match && words?.find(match[0]);
  if (!word) return null;
  return (
    <Popover trigger="click" placement="bottomLeft" title={word.word} content={<Means word={word} />}>
      <button type="button" className="ask-word" tabIndex={-1} aria-hidden="true">
        ?
      </button>
    </Popover>
  );
}

/** A sentence whose words of the trade explain themselves when they are touched, each once. */
export function Explained({ text }: { text: string }) {
  const words = useWords();
  const parts = useMemo(() => (words ? text.split(words.pattern) : [text]), [text, words]);
  const told = new Set<string>();
  return (
    <>
      {parts.map((part, i) => {
        const found = i % 2 === 1 ? words?.find(part) : undefined;
        if (!found || told.has(found.word)) return <Fragment key={i}>{part}</Fragment>;
        told.add(found.word);
        return (
          <Popover key={i} trigger="click" placement="bottomLeft" title={found.word} content={<Means word={found} />}>
            <button type="button" className="word">
              {part}
            </button>
          </Popover>
        );
      })}
    </>
  );
}

/** All words of the trade, found by any name they go by. */
export function Words({ open, onClose }: { open: boolean; onClose: () => void }) {
  const words = useChoices()?.glossary ?? [];
  const [asked, setAsked] = useState('');
  const wanted = asked.trim().toLowerCase();
  const found = words.filter((w) => [w.word, ...w.also].some((name) => name.toLowerCase().includes(wanted)));
  return (
    <Drawer closeIcon="Close" title="Words of the trade" open={open} onClose={onClose} size={420} destroyOnHidden>
      <Input
        aria-label="Find a word"
        autoFocus
        value={asked}
        onChange={(e) => setAsked(e.target.value)}
        placeholder="nap, selvedge, rayon …"
      />
      <dl className="words">
        {found.map((w) => (
          <div key={w.word}>
            <dt>{w.word}</dt>
            <dd>
              {w.means}
              {w.also.length > 0 && <span className="quiet"> Also called: {w.also.join(', ')}.</span>}
            </dd>
          </div>
        ))}
      </dl>
      {found.length === 0 && <p>No word here goes by that name.</p>}
    </Drawer>
  );
}
