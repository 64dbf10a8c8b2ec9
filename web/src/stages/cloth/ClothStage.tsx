import { useAct } from '../../app/useAct';
import { Button, Drawer } from 'antd';
import { useState } from 'react';
import { useChanges, useClothNews, useCupboard, useProject } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { ClothEditor } from '../../cupboard/ClothEditor';
import { CupboardList } from '../../cupboard/CupboardList';

/** Choose the project's cloth out of the cupboard. */
function FromCupboard({ onClose }: { onClose: () => void }) {
  const changes = useChanges();
  const list = useCupboard();
  const { run, error } = useAct(async (id: number) => {
    await changes.takeCloth(id);
    onClose();
  });
  return (
    <Drawer closeIcon="Close" open size={560} title="Which cloth is it?" onClose={onClose}>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
      <CupboardList lines={list.data?.cloths.filter((l) => l.cloth.name) ?? []} onChoose={(id) => void run(id)} />
    </Drawer>
  );
}

/** Cloth: what is known of the project's cloth, drawn to scale as it is typed. */
export function ClothStage() {
  const project = useProject().data!;
  const changes = useChanges();
  const news = useClothNews();
  const [choosing, setChoosing] = useState(false);
  const width = project.tally.find((t) => t.key === 'width');
  const { cloth } = project;
  return (
    <>
      <ClothEditor
        cloth={cloth}
        onChange={changes.cloth}
        onNews={news}
        headline={
          width?.figure ? (
            <>
              <Worked figure={width.figure} label={width.label}>
                {width.figure.text}
              </Worked>{' '}
              {width.label}
            </>
          ) : cloth.states.every((s) => s.widths.length === 0) ? (
            'How wide is the cloth?'
          ) : (
            width?.missing
          )
        }
        said={
          project.washed_width && (
            <>
              From selvage to selvage it {project.washed_width.note ? 'will be about' : 'is'}{' '}
              <Worked figure={project.washed_width} label="width, selvage to selvage">
                {project.washed_width.text}
              </Worked>{' '}
              when it is cut.
            </>
          )
        }
        commands={<Button onClick={() => setChoosing(true)}>From the cupboard</Button>}
      />
      {choosing && <FromCupboard onClose={() => setChoosing(false)} />}
    </>
  );
}
