import { Button, Checkbox, Input } from 'antd';
import {
  createContext,
  type KeyboardEvent,
  type ReactNode,
  useContext,
  useEffect,
  useId,
  useRef,
  useState,
} from 'react';
import { useParams } from 'react-router';
import { api, insisting, Refusal, unwrap } from '../api/client';
import { AskWord } from '../app/Words';
import { asShown, page, upToDate } from '../api/news';
import { goOn } from './goOn';
import { busyElsewhere, refusals } from './refusals';
import { Choice } from './Choice';
import type { ChoiceProps } from './SearchChoice';

/** Whose fields these are, where one project or page shows several cloths: half-typed entries are kept apart by it. */
export const DraftScope = createContext('');

/** What was typed and not yet kept survives a reload and a closed tab. Null: nothing is being typed. */
function useDraft(name: string, value: string) {
  const project = useParams()['projectId'] ?? '';
  const key = `draft:${project}:${useContext(DraftScope)}:${name}`;
  const [draft, setDraft] = useState(() => localStorage.getItem(key));
  // what the page showed when the typing began
  const since = useRef<number>(undefined);
  if (draft !== null && since.current === undefined)
    since.current = Number(localStorage.getItem(`since:${key}`)) || page.shown;
  if (draft === null) since.current = undefined;
  return {
    text: draft ?? value,
    pending: draft !== null && draft !== value,
    since,
    type(next: string) {
      const same = next === value;
      setDraft(same ? null : next);
      if (same) {
        localStorage.removeItem(key);
        localStorage.removeItem(`since:${key}`);
      } else {
        if (draft === null) localStorage.setItem(`since:${key}`, String(page.shown));
        localStorage.setItem(key, next);
      }
    },
    /** what was typed on while it was being kept stays */
    kept(sent: string) {
      setDraft((typed) => (typed === sent ? null : typed));
      if (localStorage.getItem(key) === sent) {
        localStorage.removeItem(key);
        localStorage.removeItem(`since:${key}`);
      }
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
  /** cloth by the yard: in inches a plain number is yards */
  yardage?: boolean;
  /** Enter was pressed, and the value is being kept */
  onEnter?: () => void;
  inputRef?: (element: HTMLInputElement | null) => void;
};

/** A field that keeps its value on Enter or on leaving, and never loses what was typed. */
export function EntryText(props: EntryProps) {
  const { label, path, value, onSave, bare, length, onTyping } = props;
  const id = useId();
  const draft = useDraft(`${label}:${path}`, value);
  const [error, setError] = useState('');
  const [hint, setHint] = useState('');
  const asked = useRef(0);
  const sending = useRef<{ text: string; typed: number }>(undefined);
  // how often something was typed: the same words typed anew are another answer
  const typed = useRef(0);
  // what was asked back, or changed in another window: Enter once more keeps it
  const doubted = useRef<string>(undefined);
  // what was refused: leaving the field does not send it a second time, only Enter does
  const refused = useRef<string>(undefined);
  const [theirs, setTheirs] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => () => refusals.drop(id), [id]);

  function tell(message: string) {
    setError(message);
    if (message)
      refusals.add({
        id,
        label,
        message,
        go: () => {
          input.current?.focus();
          input.current?.select();
        },
      });
    else refusals.drop(id);
  }

  useEffect(() => {
    if (!length || !draft.pending || !draft.text.trim()) {
      // oxlint-disable-next-line react/set-state-in-effect -- the hint goes with what it was about
      setHint('');
      if (!draft.pending) {
        tell('');
        setTheirs(undefined);
      }
      return undefined;
    }
    const number = ++asked.current;
    const read = async (again: boolean) => {
      try {
        const read = await unwrap(
          api.POST('/api/lengths/read', { body: { text: draft.text, yardage: props.yardage ?? false } }),
        );
        if (number !== asked.current) return;
        setHint(read.text === draft.text.trim() ? '' : `= ${read.text}`);
        // a question about this very text stands until it is answered
        if (doubted.current !== draft.text) tell('');
        onTyping?.(read.mm);
      } catch (fault) {
        if (number !== asked.current) return;
        setHint('');
        // no answer at all: what was typed may still be read a moment later
        if (again && (fault as Refusal).status === 0) timer = setTimeout(() => void read(false), 500);
      }
    };
    let timer = setTimeout(() => void read(true), 120);
    return () => clearTimeout(timer);
    // oxlint-disable-next-line react-hooks/exhaustive-deps -- what is told hangs on the text alone
  }, [draft.text, draft.pending, length, props.yardage, onTyping]);

  function type(text: string) {
    typed.current++;
    draft.type(text);
    // typed anew, it is said anew
    if (text !== refused.current) refused.current = undefined;
    // nothing is being typed any more: whoever shows it goes back to what is kept
    if (text === value) onTyping?.(undefined);
  }

  /** Kept once: Enter, and leaving the field by it, send one change. */
  function keep(sure = false): void {
    const under = sending.current;
    if (!draft.pending || (under?.text === draft.text && under.typed === typed.current)) return;
    const insist = doubted.current === draft.text;
    // leaving the field is no answer to a question, and to a refusal none that is new: it would take the hand back
    // from where it has gone on to
    if (!sure && (insist || refused.current === draft.text)) return;
    const now = { text: draft.text, typed: typed.current };
    sending.current = now;
    void send(now.text, insist).finally(() => {
      if (sending.current === now) sending.current = undefined;
    });
  }

  async function send(sent: string, insist: boolean) {
    const then = typed.current;
    try {
      // what was typed is built on what was shown then; said once more, on what is shown now
      const since = theirs === undefined ? draft.since.current : page.shown;
      await asShown(since, () => (insist && theirs === undefined ? insisting(() => onSave(sent)) : onSave(sent)));
      doubted.current = refused.current = undefined;
      asked.current++;
      draft.kept(sent);
      tell('');
      setTheirs(undefined);
      setHint('');
      onTyping?.(undefined);
    } catch (fault) {
      const refusal = fault as Refusal;
      // what was asked of the same text before comes in too late to wipe this away
      asked.current++;
      const twice = refusal.code === 'changed_elsewhere';
      doubted.current = refusal.code === 'asked' || twice ? sent : undefined;
      // a server that was not reached has refused nothing, nor was what has been typed since
      refused.current = refusal.status === 0 || typed.current !== then ? undefined : sent;
      setHint('');
      if (twice) {
        await upToDate();
        const there = refusal.both[0]?.theirs ?? '';
        setTheirs(there);
        tell(`In another window this became ${there || 'something else'}. Here you typed ${sent || 'nothing'}.`);
      } else tell(refusal.about?.(path) ?? refusal.message);
      // back to the field, unless something else is being typed already: the head of the page names it in any case
      if (!busyElsewhere(input.current)) input.current?.focus();
    }
  }

  function key(event: KeyboardEvent) {
    if (event.key === 'Enter') {
      keep(true);
      // at once: what is typed next must not land here. A refusal is told beside the field, and what was typed stays
      if (props.onEnter) props.onEnter();
      else goOn(event.currentTarget as HTMLElement);
    } else if (event.key === 'Escape' && draft.pending) {
      event.stopPropagation();
      takeTheirs();
    }
  }

  /** What was typed is dropped for what is kept. */
  function takeTheirs() {
    type(value);
    tell('');
    setTheirs(undefined);
    doubted.current = undefined;
  }

  return (
    <div className={`entry ${props.className ?? ''} ${bare ? 'entry-bare' : ''}`}>
      {!bare && <AskWord text={label} />}
      <label htmlFor={id} className={bare ? 'unseen' : undefined}>
        {label}
      </label>
      <Input
        id={id}
        value={draft.text}
        placeholder={props.placeholder}
        status={error ? 'error' : undefined}
        suffix={props.unit}
        aria-invalid={!!error}
        data-entry="true"
        data-tape={length || undefined}
        data-pending={draft.pending && !error ? 'true' : undefined}
        aria-describedby={`${id}-say`}
        onChange={(e) => type(e.target.value)}
        onBlur={() => keep()}
        onKeyDown={key}
        ref={(element) => {
          input.current = element?.input ?? null;
          props.inputRef?.(element?.input ?? null);
        }}
      />
      <span id={`${id}-say`} className={error ? 'say spoil' : 'say'} role={error ? 'alert' : undefined}>
        {error || hint}
        {theirs !== undefined && error && (
          <span className="both">
            <Button
              size="small"
              onClick={() => {
                input.current?.focus();
                keep(true);
              }}
            >
              Keep mine
            </Button>
            <Button
              size="small"
              onClick={() => {
                takeTheirs();
                input.current?.focus();
              }}
            >
              Take the other
            </Button>
          </span>
        )}
      </span>
    </div>
  );
}

/** A length: any unit and fractions may be typed. */
export function EntryLength(props: Omit<EntryProps, 'length'>) {
  return <EntryText {...props} length />;
}

/** What was refused of a choice or a tick, told beside it and at the head of the page. */
function useTold(id: string, label: string) {
  const [error, setError] = useState('');
  useEffect(() => () => refusals.drop(id), [id]);
  async function keeping(save: () => Promise<unknown>) {
    try {
      await save();
      setError('');
      refusals.drop(id);
    } catch (fault) {
      const refusal = fault as Refusal;
      if (refusal.code === 'changed_elsewhere') await upToDate();
      const message =
        refusal.code === 'changed_elsewhere'
          ? 'This was changed in another window; it is shown here now. Choose again if you still want to.'
          : refusal.message;
      setError(message);
      refusals.add({ id, label, message, go: () => document.getElementById(id)?.focus() });
    }
  }
  return { error, keeping };
}

/** A choice from a list, kept at once. */
export function EntryChoice(props: {
  label: string;
  value: string;
  options: { value: string; label: string }[];
  onSave: (value: string) => Promise<unknown>;
  placeholder?: string;
  bare?: boolean;
}) {
  const id = useId();
  const { error, keeping } = useTold(id, props.label);
  const field: ChoiceProps = {
    id,
    value: props.value,
    options: props.options,
    placeholder: props.placeholder ?? 'choose',
    wrong: !!error,
    onChoose: (value) => void keeping(() => props.onSave(value)),
  };
  return (
    <div className={props.bare ? 'entry entry-bare' : 'entry'}>
      {!props.bare && <AskWord text={props.label} />}
      <label htmlFor={id} className={props.bare ? 'unseen' : undefined}>
        {props.label}
      </label>
      <Choice {...field} />
      <span className="say spoil" role={error ? 'alert' : undefined}>
        {error}
      </span>
    </div>
  );
}

/** Yes or no, kept at once. */
export function EntryTick(props: {
  label: string;
  value: boolean;
  onSave: (value: boolean) => Promise<unknown>;
  disabled?: boolean;
  bare?: boolean;
}) {
  const id = useId();
  const { error, keeping } = useTold(id, props.label);
  return (
    <div className="entry-tick">
      {!props.bare && <AskWord text={props.label} />}
      <Checkbox
        id={id}
        checked={props.value}
        disabled={props.disabled ?? false}
        onChange={(e) => void keeping(() => props.onSave(e.target.checked))}
      >
        <span className={props.bare ? 'unseen' : undefined}>{props.label}</span>
      </Checkbox>
      {error && (
        <span className="say spoil" role="alert">
          {error}
        </span>
      )}
    </div>
  );
}
