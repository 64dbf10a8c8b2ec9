import { Button, Input, Modal } from 'antd';
import { useState } from 'react';
import type { Cutting, TableStep } from '../../api/client';
import { useAct } from '../../app/useAct';
import type { CutCalls } from './useCut';

/** What went wrong with a piece that was cut; of several copies which. */
export function Wrong({
  step,
  faults,
  calls,
  onClose,
}: {
  step: TableStep;
  faults: Cutting['faults'];
  calls: CutCalls;
  onClose: () => void;
}) {
  const [copy, setCopy] = useState(step.copies[0]?.copy_number ?? 0);
  const [why, setWhy] = useState('');
  const act = useAct(calls.deed, { once: true });
  const one = step.copies.find((each) => each.copy_number === copy);
  const lost = one !== undefined && one.state !== 'good' && one.state !== 'waits';
  const run = async (kind: string) => {
    await act.run({
      round: step.round,
      key: step.key,
      kind: kind as 'spoilt',
      copy_number: copy,
      why: why.trim(),
    });
  };
  return (
    <Modal open title={`${step.name}: what went wrong?`} footer={null} onCancel={onClose} closeIcon="Close">
      {!step.done && <p>It is not cut yet: mark it as cut first.</p>}
      {step.copies.length > 1 && (
        <div className="wrong-copies" role="group" aria-label="Which copy">
          {step.copies.map((each) => (
            <Button
              key={each.copy_number}
              aria-pressed={each.copy_number === copy}
              type={each.copy_number === copy ? 'primary' : 'default'}
              onClick={() => setCopy(each.copy_number)}
            >
              {each.mirrored ? 'the one turned over' : 'the one as drawn'}, {each.label}
            </Button>
          ))}
        </div>
      )}
      <label htmlFor="wrong-why">In your own words, if you like</label>
      <Input id="wrong-why" value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />
      <div className="wrong-kinds">
        {faults.map((fault) => (
          <Button
            key={fault.value}
            size="large"
            danger
            disabled={!step.done || lost}
            onClick={() => void run(fault.value).then(onClose)}
          >
            It is {fault.label}
          </Button>
        ))}
        {lost && (
          <Button size="large" onClick={() => void run('found').then(onClose)}>
            It is good after all
          </Button>
        )}
      </div>
      {act.error && (
        <p className="spoil" role="alert">
          {act.error}
        </p>
      )}
    </Modal>
  );
}
