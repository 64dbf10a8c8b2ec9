import { api, saved, type Washday } from '../api/client';
import { useClothNews } from '../api/hooks';
import { DraftScope, EntryLength } from '../fields/Entry';

/** Cloths that were treated: what they measure now is asked for, and is their new state at once. */
export function ToMeasure({ cloths }: { cloths: Washday['to_measure'] }) {
  const news = useClothNews();
  if (cloths.length === 0) return null;
  return (
    <section aria-label="To be measured" className="to-measure">
      <h2>Measure again</h2>
      {cloths.map((cloth) => {
        async function keep(body: { in_hand?: string; width_readings?: string[] }) {
          await saved(
            api.PATCH('/api/cloths/{cloth_id}', {
              params: { path: { cloth_id: cloth.cloth_id } },
              body: { ...body, state: cloth.state },
            }),
          );
          news();
        }
        return (
          <DraftScope key={cloth.cloth_id} value={`measure-${cloth.cloth_id}-${cloth.state}`}>
            <p>
              <b>{cloth.name}</b>, {cloth.project}: {cloth.how}. Lay it flat, at rest, and measure.
            </p>
            <div className="two">
              <EntryLength
                label="Its length now"
                path="in_hand"
                value={cloth.length?.text ?? ''}
                placeholder={cloth.length_about ? `about ${cloth.length_about.text}` : 'length'}
                onSave={(text) => keep({ in_hand: text })}
              />
              <EntryLength
                label="Its width now, at the narrowest"
                path="width_readings.0"
                value={cloth.width?.text ?? ''}
                placeholder={cloth.width_about ? `about ${cloth.width_about.text}` : 'width'}
                onSave={(text) => keep({ width_readings: [text] })}
              />
            </div>
          </DraftScope>
        );
      })}
    </section>
  );
}
