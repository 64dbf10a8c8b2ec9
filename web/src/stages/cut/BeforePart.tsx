import { Button, Input } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { BeforeLine } from '../../api/client';
import { useAt } from '../../api/hooks';
import { DoButton } from '../../app/DoButton';
import { useAct } from '../../app/useAct';
import { stageNames } from '../../words/stages';
import { LinePicture } from './LinePicture';
import type { CutProps } from './useCut';

const SIGNS: Record<BeforeLine['state'], [string, string]> = {
  clean: ['✓', 'clean'],
  open: ['!', 'open'],
  accepted: ['≈', 'accepted'],
};

/** One line that is not clean: where it is mended, how it is ticked, and how one goes on knowing better. */
function Mend({ line, calls }: { line: BeforeLine; calls: CutProps['calls'] }) {
  const at = useAt();
  const go = useNavigate();
  const [why, setWhy] = useState('');
  const act = useAct(calls.accept, { once: true });
  const tick = useAct(calls.tick, { once: true });
  return (
    <>
      <div className="mend">
        {line.by_hand && line.state === 'open' && (
          <Button type="primary" size="large" onClick={() => void tick.run(line.key, true)}>
            I have looked: it is so
          </Button>
        )}
        {line.mend && (
          <Button
            size="large"
            type={line.by_hand ? 'default' : 'primary'}
            onClick={() => void go(at(line.mend, line.key === 'fold' ? { part: 'fold' } : {}))}
          >
            Mend it under {stageNames[line.mend]}
          </Button>
        )}
      </div>
      {line.can_accept && !line.by_hand && (
        <form
          className="accept"
          onSubmit={(event) => {
            event.preventDefault();
            if (why.trim()) void act.run(line.key, why.trim());
          }}
        >
          <label htmlFor={`why-${line.key}`}>Or go on knowing it, because</label>
          <Input id={`why-${line.key}`} value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />
          <Button htmlType="submit" disabled={!why.trim()}>
            Accept it
          </Button>
        </form>
      )}
      {(act.error || tick.error) && (
        <p className="spoil" role="alert">
          {act.error || tick.error}
        </p>
      )}
    </>
  );
}

/** The list before cutting: clean, or knowingly accepted. */
export function BeforePart({ found, calls }: CutProps) {
  const { lines, ready, open } = found.before;
  const firstOpen = lines.find((line) => line.state === 'open')?.key;
  const [chosen, setChosen] = useState<string>();
  const shown = lines.find((line) => line.key === (chosen ?? firstOpen)) ?? lines[0]!;
  const begin = useAct(calls.begin, { once: true });
  return (
    <div className="before">
      <h1>{found.begun ? found.headline : found.headline}</h1>
      <div className="before-both">
        <ol className="before-lines" aria-label="Before cutting">
          {lines.map((line) => {
            const [sign, word] = SIGNS[line.state];
            return (
              <li key={line.key} className={`line-${line.state}`}>
                <button type="button" aria-pressed={line.key === shown.key} onClick={() => setChosen(line.key)}>
                  <span className="sign" aria-hidden="true">
                    {sign}
                  </span>
                  <span className="asks">
                    <b>{line.asks}</b>
                    <span className="unseen">, {word}</span>
                    <span className="told">
                      {line.told}
                      {line.why && ` Accepted, since ${line.why}.`}
                    </span>
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
        <section className="before-one" aria-label={shown.asks}>
          <LinePicture picture={shown.picture} />
          <h2>{shown.asks}</h2>
          <p>{shown.told}</p>
          {shown.state === 'open' && <Mend key={shown.key} line={shown} calls={calls} />}
          {shown.state === 'accepted' && (
            <p>
              Accepted, since {shown.why}. <Button onClick={() => void calls.accept(shown.key, '')}>No longer</Button>
            </p>
          )}
          {shown.ticked && <Button onClick={() => void calls.tick(shown.key, false)}>Take the tick away</Button>}
        </section>
      </div>
      {!found.begun && !found.missing && (
        <div className="before-go">
          <DoButton type="primary" size="large" disabled={!ready} onDo={() => begin.run()}>
            Begin to cut
          </DoButton>
          <span className={ready ? 'good' : 'quiet'}>
            {ready ? 'Everything is clean or accepted.' : `${open} still open.`}
          </span>
          {begin.error && <span className="spoil">{begin.error}</span>}
        </div>
      )}
    </div>
  );
}
