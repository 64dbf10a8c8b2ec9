import { useQueryClient } from '@tanstack/react-query';
import { Button, Upload } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, type ArchiveTaken, Refusal, saved } from '../../api/client';
import { inBase64 } from '../../app/inBase64';
import { useAct } from '../../app/useAct';

type Answers = { cloths: 'ask' | 'same' | 'another'; what_can_be: boolean };
const UNASKED: Answers = { cloths: 'ask', what_can_be: false };

/** Everything as one file, and such files taken in: what a cloth that is here already is, and a broken one, are asked. */
export function Archives() {
  const client = useQueryClient();
  const [asks, setAsks] = useState<{ file: File; answers: Answers; code: string; told: string }>();
  const [came, setCame] = useState<ArchiveTaken>();
  const { run, busy, error } = useAct(async (file: File, answers: Answers) => {
    setAsks(undefined);
    setCame(undefined);
    if (file.size > 20_000_000)
      throw new Error(`“${file.name}” is larger than 20 MB. Take it in by the command line: idle-selvage import FILE.`);
    try {
      const told = await saved(api.POST('/api/archives', { body: { file: await inBase64(file), ...answers } }));
      setCame(told);
      await client.invalidateQueries();
    } catch (fault) {
      if (!(fault instanceof Refusal && (fault.code === 'again' || fault.code === 'broken'))) throw fault;
      setAsks({ file, answers, code: fault.code, told: fault.message });
    }
  });
  const again = (more: Partial<Answers>) => void run(asks!.file, { ...asks!.answers, ...more });
  return (
    <section className="archives" aria-label="Archives">
      <h2>Taken along, or brought here</h2>
      <p className="commands">
        <Upload
          accept=".zip,application/zip"
          showUploadList={false}
          aria-label="Archive to take in"
          beforeUpload={(file) => {
            void run(file, UNASKED);
            return false;
          }}
        >
          <Button loading={busy}>Take in an archive</Button>
        </Upload>
        <a href="/api/archive.zip" download>
          Everything as one file
        </a>
        <span className="quiet">One garment as a file: in its Log. A cloth: in the cupboard.</span>
      </p>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
      {asks && (
        <div className="look-again" role="alertdialog" aria-label="Archive">
          <p>{asks.told}</p>
          <p className="commands">
            {asks.code === 'again' ? (
              <>
                <Button autoFocus onClick={() => again({ cloths: 'same' })}>
                  The same cloth
                </Button>
                <Button onClick={() => again({ cloths: 'another' })}>Another</Button>
              </>
            ) : (
              <Button autoFocus onClick={() => again({ what_can_be: true })}>
                Take in what can be read
              </Button>
            )}
            <Button onClick={() => setAsks(undefined)}>Leave it</Button>
          </p>
        </div>
      )}
      {came && (
        <div role="status">
          <p className="good">
            Taken in:{' '}
            {came.garments.map((one, i) => (
              <span key={one.id}>
                {i > 0 && ', '}
                <Link to={`/projects/${one.id}/plan`}>{one.name}</Link>
              </span>
            ))}
            {came.garments.length === 0 &&
              came.cloths.map((one) => (
                <Link key={one.id} to={`/cupboard/${one.id}`}>
                  {one.name || 'a cloth without a name'}
                </Link>
              ))}
            .{came.settings && ' Units, what your shop cuts in and your hours are as they were there.'}
          </p>
          {came.left_out.length > 0 && (
            <details open className="not-read">
              <summary>Not taken in ({came.left_out.length})</summary>
              <ul>
                {came.left_out.map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </ul>
            </details>
          )}
        </div>
      )}
    </section>
  );
}
