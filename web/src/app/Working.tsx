import { Drawer } from 'antd';
import { type ReactNode, useState } from 'react';
import type { Figure } from '../api/client';

/** The steps of a figure: formula, numbers put in, result, and where the rule comes from. */
function Steps({ figure }: { figure: Figure }) {
  return (
    <div className="working">
      <p className="working-answer">
        {figure.text} {figure.sure && <small>{figure.sure}</small>}
      </p>
      {figure.low && figure.high && figure.low !== figure.high && (
        <p className="quiet">
          between {figure.low} and {figure.high}
        </p>
      )}
      {figure.note && <p className="quiet">{figure.note}</p>}
      <ol>
        {figure.steps.map((step, i) => (
          <li key={i}>
            <strong>{step.label}</strong>
            <span className="formula">{step.formula}</span>
            {step.why && <span className="quiet why">{step.why}</span>}
            <span className="inputs">
              {step.inputs.map((put) => (
                <span key={put.name}>
                  {put.name} {put.text}
                </span>
              ))}
            </span>
            <span className="result">= {step.result}</span>
          </li>
        ))}
      </ol>
      {figure.sources.length > 0 && (
        <>
          <h3>Where it comes from</h3>
          <ul className="sources">
            {figure.sources.map((source) => (
              <li key={source.name}>
                {source.name}{' '}
                <span className="quiet">
                  ({source.kind}
                  {source.note && `; ${source.note}`})
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

/** A number that opens its working when touched. */
export function Worked({ figure, label, children }: { figure: Figure; label: string; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="worked"
        onClick={() => setOpen(true)}
        aria-label={`${label}: ${figure.text}. Open the working`}
      >
        {children}
      </button>
      <Drawer
        closeIcon="Close"
        title={`Working: ${label}`}
        open={open}
        onClose={() => setOpen(false)}
        size={460}
        destroyOnHidden
      >
        {/* long workings are moved through by keys, too */}
        <div tabIndex={0} role="region" aria-label={`Working: ${label}`}>
          <Steps figure={figure} />
        </div>
      </Drawer>
    </>
  );
}
