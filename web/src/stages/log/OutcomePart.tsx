import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { api, type Complaint, type Measurable, type Outcomes, saved, unwrap } from '../../api/client';
import { useAsked } from '../../api/hooks';
import { every, keys } from '../../api/keys';
import { useAct } from '../../app/useAct';
import { Choice } from '../../fields/Choice';

const GRADES = ['5', '4', '3', '2', '1'].map((value) => ({ value, label: value }));

/** How it came out: each measure beside what was predicted of it then; why, from its own record. */
export function OutcomePart() {
  const { id, params, key } = useAsked();
  const client = useQueryClient();
  const at = keys.outcomes(id, key);
  const found = useQuery({
    queryKey: at,
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/outcomes', { params })),
  });
  const keep = (told: Outcomes) => {
    client.setQueryData(at, told);
    for (const kind of ['log', 'teaches', 'match', 'why'] as const) void client.invalidateQueries(every(kind));
  };
  const striking = useAct(async (outcome_id: number) =>
    keep(
      await saved(
        api.DELETE('/api/projects/{project_id}/outcomes/{outcome_id}', {
          params: { ...params, path: { ...params.path, outcome_id } },
        }),
      ),
    ),
  );
  const told = found.data;
  if (!told) return <p className={found.isError ? 'spoil' : 'quiet'}>{found.error?.message ?? 'Fetching …'}</p>;
  return (
    <div className="came-out">
      <h1>{told.headline}</h1>
      <div className="came-out-both">
        <Measure told={told} onKept={keep} />
        <Why told={told} />
      </div>
      {told.kept.length > 0 && (
        <table className="figures">
          <caption className="unseen">What was measured, beside what was predicted of it</caption>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Measured</th>
              <th scope="col">Predicted</th>
              <th scope="col">Difference</th>
              <th scope="col">Washes</th>
              <th scope="col">
                <span className="unseen">Commands</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {told.kept.map((one) => (
              <tr key={one.id}>
                <th scope="row">
                  {one.name}: {one.what}
                  {one.note && <div className="quiet">{one.note}</div>}
                </th>
                <td>
                  <b>{one.measured.text}</b>
                </td>
                <td>
                  {one.predicted?.text ?? '—'}
                  {one.between && <div className="quiet">from {one.between}</div>}
                </td>
                <td>
                  {one.difference?.text ?? '—'}{' '}
                  {one.foreseen !== null && (
                    <span className={one.foreseen ? 'good' : 'look'}>
                      {one.foreseen ? 'as foreseen' : 'not foreseen'}
                    </span>
                  )}
                </td>
                <td>{one.washes}</td>
                <td>
                  <Button
                    size="small"
                    type="text"
                    aria-label={`Strike out ${one.name}: ${one.what}`}
                    onClick={() => void striking.run(one.id)}
                  >
                    Strike out
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {striking.error && (
        <p className="spoil" role="alert">
          {striking.error}
        </p>
      )}
    </div>
  );
}

const nameOf = (one: Measurable) => `${one.kind} ${one.number ?? ''}`;

function Measure({ told, onKept }: { told: Outcomes; onKept: (told: Outcomes) => void }) {
  const { id, params } = useAsked();
  const kinds = [...new Map(told.measurable.map((one) => [one.kind, one.name]))];
  const [kind, setKind] = useState<string>('fit');
  const [of, setOf] = useState('');
  const [values, setValues] = useState({ measured: '', grade: '', before: '', after: '', washes: '', note: '' });
  const [days, setDays] = useState('28');
  const mine = told.measurable.filter((one) => one.kind === kind);
  const one = mine.find((m) => nameOf(m) === of) ?? mine[0];
  const set = (more: Partial<typeof values>) => setValues((old) => ({ ...old, ...more }));
  const { run, busy, error } = useAct(
    async () => {
      const unit = one!.unit;
      onKept(
        await saved(
          api.POST('/api/projects/{project_id}/outcomes', {
            params,
            body: {
              kind: one!.kind,
              number: one!.number,
              measured: unit === 'length' ? values.measured : null,
              grade: unit === 'grade' ? Number(values.grade || 5) : null,
              before: unit === 'percent' ? values.before : null,
              after: unit === 'percent' ? values.after : null,
              washes: /^\d+$/.test(values.washes) ? Number(values.washes) : 0,
              note: values.note,
            },
          }),
        ),
      );
      set({ measured: '', before: '', after: '', note: '' });
    },
    { once: true },
  );
  return (
    <form
      className="measure"
      aria-label="Measure something"
      onSubmit={(e) => {
        e.preventDefault();
        void run();
      }}
    >
      <h2>Measure something</h2>
      <label>
        What{' '}
        <Choice
          id="outcome-kind"
          value={kind}
          options={kinds.map(([value, label]) => ({ value, label }))}
          placeholder="choose"
          wrong={false}
          onChoose={setKind}
        />
      </label>
      {mine.length > 1 && one && (
        <label>
          of{' '}
          <Choice
            id="outcome-of"
            value={nameOf(one)}
            options={mine.map((m) => ({ value: nameOf(m), label: m.what }))}
            placeholder="choose"
            wrong={false}
            onChoose={setOf}
          />
        </label>
      )}
      {one ? (
        <>
          <p className="quiet">
            {one.how}
            {one.predicted && (
              <>
                {' '}
                Predicted: <b>{one.predicted.text}</b>.
              </>
            )}
          </p>
          {one.unit === 'length' && (
            <label>
              Measured{' '}
              <Input value={values.measured} maxLength={60} onChange={(e) => set({ measured: e.target.value })} />
            </label>
          )}
          {one.unit === 'grade' && (
            <label>
              Grade{' '}
              <Choice
                id="outcome-grade"
                value={values.grade || '5'}
                options={GRADES}
                placeholder="choose"
                wrong={false}
                onChoose={(grade) => set({ grade })}
              />
            </label>
          )}
          {one.unit === 'percent' && (
            <>
              <label>
                Before its washes{' '}
                <Input value={values.before} maxLength={60} onChange={(e) => set({ before: e.target.value })} />
              </label>
              <label htmlFor="outcome-after">
                and now{' '}
                <Input
                  id="outcome-after"
                  value={values.after}
                  maxLength={60}
                  onChange={(e) => set({ after: e.target.value })}
                />
              </label>
            </>
          )}
          <label>
            after so many washes{' '}
            <Input
              className="short"
              inputMode="numeric"
              value={values.washes}
              maxLength={4}
              onChange={(e) => set({ washes: e.target.value })}
            />
          </label>
          <label>
            in your own words{' '}
            <Input value={values.note} maxLength={300} onChange={(e) => set({ note: e.target.value })} />
          </label>
          <Button htmlType="submit" type="primary" loading={busy}>
            Write it down
          </Button>
        </>
      ) : (
        <p className="quiet">Nothing of that kind is there: it needs pieces, or seams.</p>
      )}
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
      <p>
        <a href={`/api/projects/${id}/came-out.ics?days=${/^\d+$/.test(days) ? days : 28}`} download>
          A reminder for the calendar
        </a>{' '}
        in{' '}
        <Input
          className="short"
          aria-label="Days until the reminder"
          value={days}
          onChange={(e) => setDays(e.target.value)}
        />{' '}
        days
      </p>
    </form>
  );
}

const SURE = { reckoned: 'reckoned', hinted: 'hinted at', open: 'not ruled out' };

function Why({ told }: { told: Outcomes }) {
  const { id, key, params } = useAsked();
  const [complaint, setComplaint] = useState('');
  const [number, setNumber] = useState('');
  const ofSeam = complaint === 'bars' || complaint === 'pucker';
  const options = complaint === 'dye' ? [] : ofSeam ? told.seams : told.pieces;
  const asked = options.some((one) => one.value === number) ? Number(number) : undefined;
  const found = useQuery({
    queryKey: keys.why(id, key, complaint, asked),
    enabled: complaint !== '',
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/why', {
          params: {
            ...params,
            query: { ...params.query, complaint: complaint as Complaint, ...(asked ? { number: asked } : {}) },
          },
        }),
      ),
  });
  return (
    <section className="why" aria-label="Why did it come out so?">
      <h2>Why did it come out so?</h2>
      <label htmlFor="complaint">
        <span className="unseen">Complaint</span>
        <Choice
          id="complaint"
          value={complaint}
          options={told.complaints}
          placeholder="choose what is wrong"
          wrong={false}
          onChoose={setComplaint}
        />
      </label>{' '}
      {options.length > 0 && (
        <label>
          {ofSeam ? 'at' : 'of'}{' '}
          <Choice
            id="complaint-of"
            value={number}
            options={options}
            placeholder={ofSeam ? 'any seam' : 'the largest piece'}
            wrong={false}
            onChoose={setNumber}
          />
        </label>
      )}
      {found.data && (
        <>
          <p role="status">{found.data.headline}</p>
          <ol className="reasons">
            {found.data.reasons.map((one) => (
              <li key={one.told} className={`reason-${one.sure}`}>
                <span className="sure">
                  {SURE[one.sure]}
                  {one.explains && <b> {one.explains.text}</b>}
                </span>
                <span>
                  {one.told}
                  <br />
                  <span className="quiet">Next time: {one.next_time}</span>
                </span>
              </li>
            ))}
          </ol>
        </>
      )}
      {found.isError && <p className="spoil">{found.error.message}</p>}
    </section>
  );
}
