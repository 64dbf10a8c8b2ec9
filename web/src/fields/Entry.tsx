import { Input } from "antd";
import { createContext, type KeyboardEvent, type ReactNode, useContext, useEffect, useId, useRef, useState } from "react";
import { useParams } from "react-router";
import { api, insisting, Refusal, unwrap } from "../api/client";

/** Whose fields these are, where one project or page shows several cloths: half-typed entries are kept apart by it. */
export const DraftScope = createContext("");

/** What was typed and not yet kept survives a reload and a closed tab. Null: nothing is being typed. */
function useDraft(name: string, value: string) {
  const project = useParams()["projectId"] ?? "";
  const key = `draft:${project}:${useContext(DraftScope)}:${name}`;
  const [draft, setDraft] = useState(() => localStorage.getItem(key));
  return {
    text: draft ?? value,
    pending: draft !== null && draft !== value,
    type(next: string) {
      const same = next === value;
      setDraft(same ? null : next);
      if (same) localStorage.removeItem(key);
      else localStorage.setItem(key, next);
    },
    /** what was typed on while it was being kept stays */
    kept(sent: string) {
      setDraft((typed) => (typed === sent ? null : typed));
      if (localStorage.getItem(key) === sent) localStorage.removeItem(key);
    },
  };
}

type EntryProps = {
  label: string;
  /** where the entry lives; the server names it so when it refuses */
  path: string;
  value: string;
  onSave: (text: string) => Promise<unknown>;
  placeholder?: string | undefined;
  /** no visible label (it is still read out) */
  bare?: boolean;
  className?: string;
  /** shown behind the field */
  unit?: ReactNode;
  /** called with the millimetres of a length while it is typed */
  onTyping?: ((mm: number | undefined) => void) | undefined;
  /** a length: what was understood is shown while it is typed */
  length?: boolean;
  /** Enter was pressed, and the value is being kept */
  onEnter?: () => void;
  inputRef?: (element: HTMLInputElement | null) => void;
};

/** A field that keeps its value on Enter or on leaving, and never loses what was typed. */
export function EntryText(props: EntryProps) {
  const { label, path, value, onSave, bare, length, onTyping } = props;
  const id = useId();
  const draft = useDraft(`${label}:${path}`, value);
  const [error, setError] = useState("");
  const [hint, setHint] = useState("");
  const asked = useRef(0);
  const sending = useRef<{ text: string }>(undefined);
  // what was asked back: Enter once more keeps it
  const doubted = useRef<string>(undefined);

  useEffect(() => {
    if (!length || !draft.pending || !draft.text.trim()) {
      setHint("");
      if (!draft.pending) setError("");
      return undefined;
    }
    const number = ++asked.current;
    const read = async (again: boolean) => {
      try {
        const read = await unwrap(api.POST("/api/lengths/read", { body: { text: draft.text } }));
        if (number !== asked.current) return;
        setHint(read.text === draft.text.trim() ? "" : `= ${read.text}`);
        setError("");
        onTyping?.(read.mm);
      } catch (fault) {
        if (number !== asked.current) return;
        setHint("");
        // no answer at all: what was typed may still be read a moment later
        if (again && (fault as Refusal).status === 0) timer = setTimeout(() => void read(false), 500);
      }
    };
    let timer = setTimeout(() => void read(true), 120);
    return () => clearTimeout(timer);
  }, [draft.text, draft.pending, length, onTyping]);

  function type(text: string) {
    draft.type(text);
    // nothing is being typed any more: whoever shows it goes back to what is kept
    if (text === value) onTyping?.(undefined);
  }

  /** Kept once: Enter, and leaving the field by it, send one change. */
  function keep(sure = false): void {
    if (!draft.pending || sending.current?.text === draft.text) return;
    const insist = doubted.current === draft.text;
    // leaving the field is no answer to a question
    if (insist && !sure) return;
    const now = { text: draft.text };
    sending.current = now;
    void send(now.text, insist).finally(() => {
      if (sending.current === now) sending.current = undefined;
    });
  }

  async function send(sent: string, insist: boolean) {
    try {
      await (insist ? insisting(() => onSave(sent)) : onSave(sent));
      doubted.current = undefined;
      asked.current++;
      draft.kept(sent);
      setError("");
      setHint("");
      onTyping?.(undefined);
    } catch (fault) {
      const refusal = fault as Refusal;
      // what was asked of the same text before comes in too late to wipe this away
      asked.current++;
      doubted.current = refusal.code === "asked" ? sent : undefined;
      setHint("");
      setError(refusal.about?.(path) ?? refusal.message);
    }
  }

  function key(event: KeyboardEvent) {
    if (event.key === "Enter") {
      keep(true);
      // at once: what is typed next must not land here. A refusal is told beside the field, and what was typed stays
      props.onEnter?.();
    } else if (event.key === "Escape" && draft.pending) {
      event.stopPropagation();
      type(value);
      setError("");
    }
  }

  return (
    <div className={`entry ${props.className ?? ""} ${bare ? "entry-bare" : ""}`}>
      <label htmlFor={id} className={bare ? "unseen" : undefined}>
        {label}
      </label>
      <Input
        id={id}
        value={draft.text}
        placeholder={props.placeholder}
        status={error ? "error" : undefined}
        suffix={props.unit}
        aria-invalid={!!error}
        data-tape={length || undefined}
        aria-describedby={`${id}-say`}
        onChange={(e) => type(e.target.value)}
        onBlur={() => keep()}
        onKeyDown={key}
        ref={(element) => props.inputRef?.(element?.input ?? null)}
      />
      <span id={`${id}-say`} className={error ? "say spoil" : "say"} role={error ? "alert" : undefined}>
        {error || hint}
      </span>
    </div>
  );
}

/** A length: any unit and fractions may be typed. */
export function EntryLength(props: Omit<EntryProps, "length">) {
  return <EntryText {...props} length />;
}

/** A choice from a short list, kept at once. */
export function EntryChoice(props: {
  label: string;
  value: string;
  options: { value: string; label: string }[];
  onSave: (value: string) => Promise<unknown>;
  placeholder?: string;
  bare?: boolean;
}) {
  const id = useId();
  const [error, setError] = useState("");
  return (
    <div className={props.bare ? "entry entry-bare" : "entry"}>
      <label htmlFor={id} className={props.bare ? "unseen" : undefined}>{props.label}</label>
      <select
        id={id}
        className="choice"
        value={props.value}
        onChange={async (e) => {
          try {
            await props.onSave(e.target.value);
            setError("");
          } catch (fault) {
            setError((fault as Error).message);
          }
        }}
      >
        {!props.options.some((o) => o.value === "") && (props.placeholder || props.value === "") && (
          <option value="" disabled>
            {props.placeholder ?? "choose"}
          </option>
        )}
        {props.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
      <span className="say spoil">{error}</span>
    </div>
  );
}

/** Yes or no, kept at once. */
export function EntryTick(props: { label: string; value: boolean; onSave: (value: boolean) => Promise<unknown>; disabled?: boolean; bare?: boolean }) {
  const [error, setError] = useState("");
  return (
    <div className="entry-tick">
      <label>
        <input
          type="checkbox"
          checked={props.value}
          disabled={props.disabled}
          onChange={async (e) => {
            try {
              await props.onSave(e.target.checked);
              setError("");
            } catch (fault) {
              setError((fault as Error).message);
            }
          }}
        />{" "}
        <span className={props.bare ? "unseen" : undefined}>{props.label}</span>
      </label>
      {error && <span className="say spoil" role="alert">{error}</span>}
    </div>
  );
}
