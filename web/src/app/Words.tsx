import { Drawer, Input, Popover } from "antd";
import { Fragment, useMemo, useState } from "react";
import { useChoices } from "../api/hooks";

const escaped = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** A sentence whose words of the trade explain themselves when they are touched, each once. */
export function Explained({ text }: { text: string }) {
  const words = useChoices()?.glossary;
  const parts = useMemo(() => {
    if (!words) return [text];
    const longest = words.map((w) => escaped(w.word)).toSorted((a, b) => b.length - a.length);
    return text.split(new RegExp(`\\b((?:${longest.join("|")})s?)\\b`, "i"));
  }, [text, words]);
  const told = new Set<string>();
  return (
    <>
      {parts.map((part, i) => {
        const found = i % 2 === 1 ? words?.find((w) => [w.word, `${w.word}s`].includes(part.toLowerCase())) : undefined;
        if (!found || told.has(found.word)) return <Fragment key={i}>{part}</Fragment>;
        told.add(found.word);
        return (
          <Popover key={i} trigger="click" placement="bottomLeft" title={found.word} content={<div className="word-means">{found.means}{found.also.length > 0 && <p className="quiet">Also called: {found.also.join(", ")}.</p>}</div>}>
            <button type="button" className="word">{part}</button>
          </Popover>
        );
      })}
    </>
  );
}

/** All words of the trade, found by any name they go by. */
export function Words({ open, onClose }: { open: boolean; onClose: () => void }) {
  const words = useChoices()?.glossary ?? [];
  const [asked, setAsked] = useState("");
  const wanted = asked.trim().toLowerCase();
  const found = words.filter((w) => [w.word, ...w.also].some((name) => name.toLowerCase().includes(wanted)));
  return (
    <Drawer closeIcon="Close" title="Words of the trade" open={open} onClose={onClose} size={420} destroyOnHidden>
      <Input aria-label="Find a word" autoFocus value={asked} onChange={(e) => setAsked(e.target.value)} placeholder="nap, selvedge, rayon …" />
      <dl className="words">
        {found.map((w) => <div key={w.word}><dt>{w.word}</dt><dd>{w.means}{w.also.length > 0 && <span className="quiet"> Also called: {w.also.join(", ")}.</span>}</dd></div>)}
      </dl>
      {found.length === 0 && <p>No word here goes by that name.</p>}
    </Drawer>
  );
}
