import { Button, Segmented } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useAsked, useAt, useProject, useSettings } from '../../api/hooks';
import { Tablet } from '../../devices/Pairing';
import type { CutProps } from './useCut';

const PAPERS = [
  { value: 'a4', label: 'A4' },
  { value: 'a3', label: 'A3' },
  { value: 'letter', label: 'Letter' },
];

/** What is printed, and what is thrown on the table at its true size. */
export function PapersPart({ found }: CutProps) {
  const { id, use } = useAsked();
  const at = useAt();
  const go = useNavigate();
  const imperial = useSettings()?.system === 'imperial';
  const [chosen, setPaper] = useState<string>();
  const paper = chosen ?? (imperial ? 'letter' : 'a4');
  const [side, setSide] = useState('');
  const file = (name: string, more: Record<string, string> = {}) => {
    const query = new URLSearchParams({ paper, ...more, ...(use ? { use: String(use) } : {}) });
    return `/api/projects/${id}/cut/${name}?${query}`;
  };
  const nothing = found.rounds.length === 0;
  const project = useProject().data!;
  const pieces = project.pieces
    .filter((piece) => piece.cuts.some((one) => one.use_id === project.use_id))
    .map((piece) => [String(piece.id), piece.name] as const);
  const swatch = new URLSearchParams({ paper, ...(side.trim() ? { side: side.trim() } : {}) });
  return (
    <div className="papers">
      <h1>On paper, and at true size</h1>
      <Segmented aria-label="Paper" options={PAPERS} value={paper} onChange={(value) => setPaper(String(value))} />
      {nothing && <p className="quiet">The sheet and the lay can be printed once it is laid.</p>}
      <section>
        <h2>For the table</h2>
        <p>
          {!nothing && <a href={file('sheet.pdf')}>The cutting sheet</a>}
          {!nothing && (
            <>
              {' '}
              (
              <a href={file('sheet.pdf', { show: 'true' })} target="_blank" rel="noreferrer">
                look at it and print it
              </a>
              )
            </>
          )}
          {!nothing && ': lay map, order, distances, folding, matching, marking and cautions, with boxes to tick.'}
        </p>
        <p>
          {!nothing && <a href={file('labels.pdf')}>Labels for the cut pieces</a>}
          {!nothing && ', one for each copy.'}
        </p>
        <p>
          <a href={file('gauges.pdf')}>Chalk gauges</a>: a strip of card for each allowance.
        </p>
      </section>
      <section>
        <h2>At true size</h2>
        <p>
          {!nothing && <a href={file('lay.pdf')}>The whole lay</a>}
          {!nothing && ' on pages to be taped together; '}
          <a href={file('pieces.pdf')}>all pieces</a> so; or as one drawing: <a href={file('pieces.svg')}>pieces</a>
          {!nothing && (
            <>
              , <a href={`/api/projects/${id}/lay.svg${use ? `?use=${use}` : ''}`}>lay</a>
            </>
          )}
          .
        </p>
        {pieces.length > 1 && (
          <p>
            One by one:{' '}
            {pieces.map(([key, name], k) => (
              <span key={key}>
                {k > 0 && ', '}
                <a href={file('pieces.pdf', { piece: key })}>{name}</a>
              </span>
            ))}
            .
          </p>
        )}
        {!nothing && (
          <Button size="large" onClick={() => void go(at('true-size'))}>
            Throw it on the table by a projector or screen
          </Button>
        )}
      </section>
      <section>
        <h2>Swatch template</h2>
        <p>
          Paper on which a washed swatch shows its own shrinkage: lay its corner on the corner, and read where its edges
          end.
        </p>
        <p className="swatch-side">
          <label htmlFor="swatch-side">Square of</label>{' '}
          <input
            id="swatch-side"
            className="ant-input"
            value={side}
            placeholder={imperial ? '10 in' : '25 cm'}
            maxLength={60}
            onChange={(event) => setSide(event.target.value)}
          />{' '}
          <a href={`/api/swatch-template.pdf?${swatch}`}>Print it</a>
        </p>
      </section>
      <Tablet />
    </div>
  );
}
