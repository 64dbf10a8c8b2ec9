import { Drawer } from 'antd';
import { useState } from 'react';
import { useAt, useProject } from '../../api/hooks';
import { SeamList } from '../../seams/SeamList';
import { previewTitle, SeamPreview } from '../../seams/SeamPreview';
import { useMatch } from '../../seams/useMatch';

/** What this lay comes to at each seam, the seams as they will be seen, and the steps at the table. */
export function SeamsBeside() {
  const { data: match, error } = useMatch();
  const at = useAt();
  const takes = useProject().data?.purchase?.lines.filter((line) => line.key === 'matching' || line.key === 'phase');
  const [chosen, setChosen] = useState<number>();
  if (error) return <p className="spoil">{error.message}</p>;
  if (!match) return <p className="quiet">Fetching …</p>;
  const seam = match.seams.find((s) => s.id === chosen);
  return (
    <section aria-label="Seams on this lay">
      {match.seams.length === 0 ? (
        <p>
          No seam is told yet: <a href={at('plan', { part: 'seams' })}>say under Plan which edges are sewn together</a>.
        </p>
      ) : (
        <>
          <SeamList match={match} onChoose={setChosen} />
          {takes?.map((line) => (
            <p key={line.key}>
              The lay is {line.adds.text} longer for this: {line.name}.
            </p>
          ))}
          <p className="quiet">{match.limits}</p>
        </>
      )}
      {match.steps.length > 0 && (
        <>
          <h2>Cutting what matches</h2>
          <ol className="cut-steps">
            {match.steps.map((step) => (
              <li key={step.told}>
                {step.told} {step.why && <small className="quiet">{step.why}</small>}
              </li>
            ))}
          </ol>
        </>
      )}
      <Drawer
        closeIcon="Close"
        title={previewTitle(seam)}
        open={seam !== undefined}
        onClose={() => setChosen(undefined)}
        size={700}
        destroyOnHidden
      >
        {seam && <SeamPreview key={seam.id} match={match} seam={seam} />}
      </Drawer>
    </section>
  );
}
