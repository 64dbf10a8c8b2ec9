import { Button, Modal } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Refusal, type TableStep } from '../../api/client';
import { useProject } from '../../api/hooks';
import { useAct } from '../../app/useAct';
import { useSize } from '../../draw/useSize';
import { around, CutCloth, wholeOf } from './Cloth';
import { useAwake, useVoice } from './table';
import { Wrong } from './Wrong';
import type { CutProps } from './useCut';

/** Round a piece so much of its neighbours is seen, mm. */
const ROOM = 45;

function Facts({ step }: { step: TableStep }) {
  return (
    <dl className="table-facts">
      <div className="big">
        <dt>Arrow from the {step.edge}</dt>
        <dd>
          {step.tail_distance.text === step.head_distance.text ? (
            <b>{step.tail_distance.text}</b>
          ) : (
            <>
              tail <b>{step.tail_distance.text}</b>, head <b>{step.head_distance.text}</b>
            </>
          )}
        </dd>
      </div>
      <div className="big">
        <dt>From the {step.from_what}</dt>
        <dd>
          <b>{step.begins.text}</b> to <b>{step.ends.text}</b>
        </dd>
      </div>
      <div>
        <dt>Lies</dt>
        <dd>
          {step.face}; {step.turned}; {step.layers}
        </dd>
      </div>
      {step.allowance && (
        <div>
          <dt>Cut line</dt>
          <dd>{step.allowance}</dd>
        </div>
      )}
      {step.match.map((told) => (
        <div key={told}>
          <dt>Match</dt>
          <dd>{told}</dd>
        </div>
      ))}
      {step.stop_at.length > 0 && (
        <div className="look">
          <dt>Stop at corners</dt>
          <dd>{step.stop_at.join(', ')} needs the cloth beside it</dd>
        </div>
      )}
      {step.marks.length > 0 && (
        <div>
          <dt>Mark</dt>
          <dd>
            <details>
              <summary>{step.marked}</summary>
              <ul>
                {step.marks.map((mark, k) => (
                  <li key={k}>
                    {mark.name || mark.label}: {mark.along.text} along, {mark.across.text} from the {step.edge}
                  </li>
                ))}
              </ul>
            </details>
          </dd>
        </div>
      )}
    </dl>
  );
}

/** On a tablet that stands upright there is room for what is always the same. */
const tall = window.innerHeight > 1000;

/** At the table: one piece at a time, large, with one hand. */
export function TablePart({ found, calls }: CutProps) {
  const cloth = useProject().data?.cloth;
  const picture = useSize<HTMLDivElement>();
  const map = useSize<HTMLDivElement>();
  const home = useRef<HTMLElement>(null);
  const [place, setPlace] = useState<number>();
  const [wrong, setWrong] = useState<TableStep>();
  const voice = useVoice();
  useAwake(found.begun && !found.done);
  const deed = useAct(calls.deed, { once: true });
  const undo = useAct(calls.deed, { once: true });
  const steps = found.steps;
  const shown = Math.min(place ?? found.at ?? steps.length - 1, steps.length - 1);
  const step = steps[shown];
  const last = found.last_cut;

  const goTo = (k: number) => {
    const to = steps[k];
    if (!to) return;
    setPlace(k);
    if (!to.done) void calls.goTo(to.round, to.key);
    if (voice.on) voice.say(to.says);
  };
  const done = async () => {
    if (!step || step.done || deed.busy) return;
    await deed.run({ round: step.round, key: step.key, kind: 'cut' });
    setPlace(undefined);
  };
  const back = async (really: boolean) => {
    if (!last) return;
    const { round, key } = last;
    await undo.run({ round, key, kind: 'not cut', really });
    if (really) {
      setPlace(undefined);
      home.current?.focus();
    }
  };
  // cut cloth does not come back: that is asked once more
  const refusal = undo.refusal;
  const asked = refusal instanceof Refusal && refusal.code === 'asked' ? refusal.message : '';

  const hand = useRef({ done, back, goTo, shown, step, voice });
  useEffect(() => {
    hand.current = { done, back, goTo, shown, step, voice };
  });
  useEffect(() => {
    function down(event: KeyboardEvent) {
      const at = event.target as HTMLElement;
      const command = event.ctrlKey || event.metaKey;
      // here the usual keys of undo mean the cut: what was done before cutting stays
      if (command && !event.shiftKey && event.key.toLowerCase() === 'z' && !at.closest('input, .ant-modal')) {
        event.preventDefault();
        event.stopImmediatePropagation();
        void hand.current.back(false);
        return;
      }
      if (command || event.altKey) return;
      if (at.closest('input, textarea, select, .ant-modal, .ant-drawer, .rail, .top, summary, .ant-tabs-tab')) return;
      const of = hand.current;
      const key = event.key.toLowerCase();
      // a button that has the hand is pressed by Enter itself
      if (key === 'enter' && !at.closest('button, a')) void of.done();
      else if (key === 'arrowright') of.goTo(of.shown + 1);
      else if (key === 'arrowleft') of.goTo(of.shown - 1);
      else if (key === 'u') void of.back(false);
      else if (key === 'w' && of.step) setWrong(of.step);
      else if (key === 'r' && of.step) of.voice.say(of.step.says);
      else return;
      event.preventDefault();
    }
    window.addEventListener('keydown', down, { capture: true });
    return () => window.removeEventListener('keydown', down, { capture: true });
  }, []);
  const says = step?.says;
  const reads = voice.on;
  const { say } = voice;
  useEffect(() => {
    if (reads && says) say(says);
  }, [reads, says, say]);

  if (!found.begun)
    return (
      <div role="status">
        <h1>Cutting is not begun</h1>
        <p className="quiet">Go through the list before cutting first.</p>
      </div>
    );
  if (!step) return <h1>Nothing is left to be cut here</h1>;
  const round = found.rounds.find((one) => one.round === step.round)!;
  const shape = round.shapes.find((one) => one.key === step.key)!;
  const foreign = round.cloth !== '' && step.cloth !== '';
  return (
    <section className="table" ref={home} tabIndex={-1} aria-label="At the table">
      <header className="table-head">
        <h1>
          <span className="quiet">
            {step.number} of {step.of}
          </span>{' '}
          {step.name}
          {step.cloth && <small> from {step.cloth}</small>}
        </h1>
        <p className="table-tally" role="status">
          {found.headline}
          {step.done && <b className="good"> · this one is cut</b>}
        </p>
      </header>
      <div className="table-picture" ref={picture.ref}>
        {picture.width > 0 && (
          <CutCloth
            round={round}
            cloth={foreign ? undefined : cloth}
            box={around(shape, ROOM)}
            width={picture.width}
            height={picture.height}
            at={step.key}
            large
            label={`${step.name} on the cloth`}
          />
        )}
      </div>
      <Facts step={step} />
      <div className="table-map" ref={map.ref}>
        {map.width > 0 && (
          <CutCloth
            round={round}
            cloth={foreign ? undefined : cloth}
            box={wholeOf(round)}
            width={map.width}
            height={map.height}
            at={step.key}
            onChoose={(one) => goTo(steps.findIndex((each) => each.key === one.key && each.round === one.round))}
            label="The whole lay: what is cut has a tick"
          />
        )}
      </div>
      <details className="table-how" open={tall}>
        <summary>How to hold and cut this cloth</summary>
        <p>
          {found.handling.hold} <span className="quiet">{found.handling.hold_why}</span>
        </p>
        {found.handling.cut.map((told) => (
          <p key={told}>{told}</p>
        ))}
        <ul>
          {found.handling.marks
            .filter((mark) => step.marks.some((one) => one.kind === mark.kind))
            .map((mark) => (
              <li key={mark.kind}>
                <b>{mark.label}</b>: {mark.do} <span className="quiet">{mark.why}</span>
              </li>
            ))}
        </ul>
      </details>
      <p className="table-caution">
        <b>Take care:</b> {found.handling.cautions.join(' ')}
      </p>
      {(deed.error || (undo.error && !asked)) && (
        <p className="spoil" role="alert">
          {deed.error || undo.error}
        </p>
      )}
      <div className="table-hand" role="group" aria-label="At the table">
        <Button size="large" disabled={shown === 0} onClick={() => goTo(shown - 1)}>
          ← Back
        </Button>
        <Button
          size="large"
          type="primary"
          className="table-done"
          data-main
          disabled={step.done}
          loading={deed.busy}
          onClick={(event) => {
            // the second click of a double click is meant for the same piece
            if (event.detail < 2) void done();
          }}
        >
          {step.done ? 'Is cut' : 'It is cut'}
        </Button>
        <Button size="large" disabled={shown === steps.length - 1} onClick={() => goTo(shown + 1)}>
          Next →
        </Button>
        <Button size="large" disabled={!last} onClick={() => void back(false)}>
          {last ? `Undo: ${last.name}` : 'Undo'}
        </Button>
        <Button size="large" danger disabled={!step.done} onClick={() => setWrong(step)}>
          Went wrong
        </Button>
        {voice.can && (
          <Button size="large" aria-pressed={voice.on} onClick={voice.toggle}>
            {voice.on ? 'Stop reading' : 'Read aloud'}
          </Button>
        )}
      </div>
      <Modal
        open={asked !== ''}
        title="Cut cloth does not come back"
        okText="It is not cut: take it back"
        cancelText="It is cut"
        closeIcon="Close"
        onOk={() => void back(true)}
        onCancel={undo.forget}
      >
        <p>{asked}</p>
      </Modal>
      {wrong && <Wrong step={wrong} faults={found.faults} calls={calls} onClose={() => setWrong(undefined)} />}
    </section>
  );
}
