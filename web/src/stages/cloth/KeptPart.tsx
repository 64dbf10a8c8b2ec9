import { useAct } from '../../app/useAct';
import { Button, Upload } from 'antd';
import { api, saved } from '../../api/client';
import { EntryText, EntryTick } from '../../fields/Entry';
import type { PartProps } from '../../cupboard/ClothEditor';
import { Washes } from './Washes';

const base64 = (file: Blob) =>
  new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).split(',', 2)[1] ?? '');
    reader.onerror = () => reject(new Error('The photo could not be read.'));
    reader.readAsDataURL(file);
  });

function Photo({ cloth, onNews }: Pick<PartProps, 'cloth'> & { onNews: () => void }) {
  const path = { params: { path: { cloth_id: cloth.id } } };
  const { run: keep, error } = useAct(async (picked: File) => {
    if (picked.size > 6_000_000) throw new Error('The photo is larger than 6 MB; take a smaller one.');
    await saved(api.PUT('/api/cloths/{cloth_id}/photo', { ...path, body: { data: await base64(picked) } }));
    onNews();
  });
  async function remove() {
    await saved(api.DELETE('/api/cloths/{cloth_id}/photo', path));
    onNews();
  }
  return (
    <section aria-label="Photo">
      {cloth.photo && (
        <img className="cloth-photo" src={cloth.photo} alt={`${cloth.name || 'The cloth'}, as photographed`} />
      )}
      <p className="commands">
        <Upload
          accept="image/jpeg,image/png,image/webp"
          showUploadList={false}
          aria-label="Photo of the cloth"
          beforeUpload={(picked) => {
            void keep(picked);
            return false;
          }}
        >
          <Button>{cloth.photo ? 'Another photo' : 'Add a photo'}</Button>
        </Upload>
        {cloth.photo && (
          <Button type="text" onClick={() => void remove()}>
            Remove it
          </Button>
        )}
      </p>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
    </section>
  );
}

/** Where it is kept, how more of it is found, a photo, and the pre-treatment it has had. */
export function KeptPart({ cloth, onChange, onNews }: PartProps & { onNews: () => void }) {
  return (
    <>
      <EntryText
        label="Where it is kept"
        path="place"
        value={cloth.place}
        placeholder="such as Blue box, top shelf"
        onSave={(place) => onChange({ place })}
      />
      <EntryText
        label="Style number printed on the selvage"
        path="style_number"
        value={cloth.style_number}
        placeholder="to find more of the same"
        onSave={(style_number) => onChange({ style_number })}
      />
      <h2>Pre-treatment</h2>
      <Washes cloth={cloth} onNews={onNews} />
      {cloth.washes.length === 0 && (
        <EntryTick
          label="It was treated before, and no wash was written down"
          value={cloth.treated}
          onSave={(treated) => onChange({ treated })}
        />
      )}
      {cloth.treated && cloth.width_now?.note && (
        <p className="look">
          Measure its width and length again, under Measures: until then they are told from what they were.
        </p>
      )}
      <Photo cloth={cloth} onNews={onNews} />
    </>
  );
}
