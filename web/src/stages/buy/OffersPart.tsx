import { keys } from '../../api/keys';
import { Button, Drawer, Table } from 'antd';
import { DoButton } from '../../app/DoButton';
import type { ColumnsType, ColumnType } from 'antd/es/table';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import {
  api,
  type NewOffer,
  type Offer,
  type OfferChange,
  type Offers,
  type Project,
  saved,
  unwrap,
} from '../../api/client';
import { useAsked, useChoices, useTape } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { DraftScope, EntryChoice, EntryLength, EntryText, EntryTick } from '../../fields/Entry';
import { fitting, SmallLay } from '../../lay-table/SmallLay';
import { Trying } from './Trying';
import { useBuyPart, useTrials } from './useBuy';

/** By a figure, what has none last. */
const by =
  (of: (o: Offer) => number | undefined): NonNullable<ColumnType<Offer>['sorter']> =>
  (a, b) =>
    (of(a) ?? Infinity) - (of(b) ?? Infinity);

/** Widths and prices side by side, each with its own lay. */
export function OffersPart({ project }: { project: Project }) {
  const { imperial } = useTape();
  const part = useBuyPart<Offers>('offers', (params) =>
    unwrap(api.GET('/api/projects/{project_id}/offers', { params })),
  );
  const trials = useTrials('offers', part.data?.trials, () => void part.again());
  const [open, setOpen] = useState<number>();
  const [shop, setShop] = useState(false);
  const found = part.data;
  const { params } = part;
  async function add(body: NewOffer) {
    const told = part.keep(await saved(api.POST('/api/projects/{project_id}/offers', { params, body })));
    return told.offers.at(-1)?.id ?? undefined;
  }
  const another = async () =>
    setOpen(await add({ name: 'Another width', width: imperial ? '55 in' : '140 cm', shop_number: '' }));
  if (part.error) return <p className="spoil">{part.error.message}</p>;
  if (!found) return <p className="quiet">Fetching …</p>;
  const lays = found.offers.flatMap((o) => (o.lay ? [o.lay] : []));
  const scale = fitting(Math.max(...lays.map((l) => l.length.mm)), Math.max(...lays.map((l) => l.width)), 240, 92);
  async function takeOut(offer: Offer) {
    const at = { params: { ...params, path: { ...params.path, offer_id: offer.id! } } };
    part.keep(await saved(api.DELETE('/api/projects/{project_id}/offers/{offer_id}', at)));
  }
  const shown = (figure: Offer['cost'], label: string) =>
    figure ? (
      <Worked figure={figure} label={label}>
        {figure.text}
      </Worked>
    ) : (
      '—'
    );
  const columns: ColumnsType<Offer> = [
    {
      title: 'offer',
      key: 'offer',
      rowScope: 'row',
      render: (_, offer) => (
        <>
          {offer.id === null ? (
            offer.name
          ) : (
            <button type="button" className="worked" onClick={() => setOpen(offer.id ?? undefined)}>
              {offer.name}
            </button>
          )}
          <small>
            {offer.id === null ? (
              'the cloth of this project'
            ) : offer.warp_figure && offer.weft_figure ? (
              <>
                shrinks{' '}
                <Worked figure={offer.warp_figure} label={`shrinkage along, ${offer.name}`}>
                  {offer.warp_figure.text}
                </Worked>{' '}
                ×{' '}
                <Worked figure={offer.weft_figure} label={`shrinkage across, ${offer.name}`}>
                  {offer.weft_figure.text}
                </Worked>
              </>
            ) : (
              'how much it shrinks is not known'
            )}
            {offer.stock ? `, ${offer.stock.text} in stock` : ''}
          </small>
        </>
      ),
    },
    { title: 'width', key: 'width', sorter: by((o) => o.width.mm), render: (_, offer) => offer.width.text },
    { title: 'price', key: 'price', render: (_, offer) => offer.price_text || '—' },
    {
      title: 'lay',
      key: 'lay',
      render: (_, offer) =>
        offer.lay ? (
          <Worked figure={offer.lay.figure} label={`lay, ${offer.name}`}>
            {offer.lay.length.text}
          </Worked>
        ) : (
          '—'
        ),
    },
    {
      title: 'to buy',
      key: 'to_buy',
      sorter: by((o) => o.to_buy?.value),
      render: (_, offer) => <b>{shown(offer.to_buy, `to buy, ${offer.name}`)}</b>,
    },
    {
      title: 'cost',
      key: 'cost',
      sorter: by((o) => o.cost?.value),
      render: (_, offer) => shown(offer.cost, `cost, ${offer.name}`),
    },
    {
      title: 'not in a piece',
      key: 'waste',
      sorter: by((o) => o.waste?.value),
      render: (_, offer) => shown(offer.waste, `waste, ${offer.name}`),
    },
    {
      title: <span className="unseen">its lay</span>,
      key: 'picture',
      className: 'offer-picture',
      render: (_, offer) => (
        <>
          {offer.lay && <SmallLay lay={offer.lay} cloth={project.cloth} scale={scale} />}
          <span className="marks">
            {offer.cheapest && <span className="good">✓ cheapest</span>}
            {offer.least_waste && <span className="good">✓ least waste</span>}
            {offer.lacking && (
              <span className="spoil">
                the shop is{' '}
                <Worked figure={offer.lacking} label={`short of it, ${offer.name}`}>
                  {offer.lacking.text}
                </Worked>{' '}
                short of it
              </span>
            )}
            {offer.told && <span className="spoil">{offer.told}</span>}
          </span>
        </>
      ),
    },
  ];
  return (
    <>
      <h1>{found.headline}</h1>
      {found.missing && <p className="look">{found.missing}</p>}
      <p className="commands">
        <DoButton type={found.offers.length < 2 ? 'primary' : 'default'} onDo={another}>
          Put an offer beside these
        </DoButton>
        <Button onClick={() => setShop(true)}>Look at the shop’s list</Button>
      </p>
      <Trying trials={trials} what="Laying each width" />
      {found.offers.length > 0 && (
        <Table<Offer>
          className="offers-table"
          size="small"
          pagination={false}
          rowKey={(o) => o.id ?? 'own'}
          dataSource={found.offers}
          showSorterTooltip={false}
          rowClassName={(o) => (o.cheapest || o.least_waste ? 'best' : '')}
          columns={columns}
        />
      )}
      <OfferDrawer
        key={open ?? 'none'}
        offer={found.offers.find((o) => o.id !== null && o.id === open)}
        onClose={() => setOpen(undefined)}
        onChange={async (id, body) => {
          trials.wake();
          part.keep(
            await saved(
              api.PATCH('/api/projects/{project_id}/offers/{offer_id}', {
                params: { ...params, path: { ...params.path, offer_id: id } },
                body,
              }),
            ),
          );
        }}
        onTakeOut={takeOut}
      />
      <ShopDrawer
        open={shop}
        onClose={() => setShop(false)}
        onAdd={async (shop_number) => {
          await add({ shop_number });
        }}
      />
    </>
  );
}

function OfferDrawer({
  offer,
  onChange,
  onTakeOut,
  onClose,
}: {
  offer: Offer | undefined;
  onChange: (id: number, body: OfferChange) => Promise<void>;
  onTakeOut: (offer: Offer) => Promise<void>;
  onClose: () => void;
}) {
  const choices = useChoices();
  if (!offer || offer.id === null) return null;
  const id = offer.id;
  const change = (body: OfferChange) => onChange(id, body);
  const orNull = (v: string) => (v.trim() ? v : null);
  const step = choices?.steps.find((s) => Math.abs(Number(s.value) - offer.step.mm) < 0.01);
  return (
    <Drawer
      closeIcon="Close"
      title="An offer"
      open
      onClose={onClose}
      size={420}
      footer={
        <div className="drawer-foot">
          <Button
            onClick={async () => {
              onClose();
              await onTakeOut(offer);
            }}
          >
            Take it out
          </Button>
          <Button type="primary" onClick={onClose}>
            Done
          </Button>
        </div>
      }
    >
      <DraftScope value={`offer-${id}`}>
        <EntryText label="Name" path="name" value={offer.name} onSave={(name) => change({ name })} />
        <EntryTick
          label="It is this cloth in another width: its swatch counts"
          value={offer.same}
          onSave={(same) => change({ same })}
        />
        {!offer.same && (
          <EntryChoice
            label="Made of"
            value={offer.fibre}
            options={[{ value: '', label: 'the same fibres as this cloth' }, ...(choices?.fibres ?? [])]}
            onSave={(fibre) => change({ fibre })}
          />
        )}
        <div className="two">
          <EntryLength
            label="Width, selvage to selvage"
            path="width"
            value={offer.width.text}
            onSave={(width) => change({ width })}
          />
          <EntryLength
            label="Both selvages together"
            path="margin"
            value={offer.margin.text}
            onSave={(margin) => change({ margin })}
          />
          <EntryText
            label="Price"
            path="price"
            value={offer.price === null ? '' : String(offer.price)}
            onSave={(v) => change({ price: orNull(v) })}
          />
          <EntryChoice
            label="a"
            value={offer.price_unit}
            options={[
              { value: 'm', label: 'metre' },
              { value: 'yd', label: 'yard' },
            ]}
            onSave={(v) => change({ price_unit: v as 'm' | 'yd' })}
          />
          <EntryText
            label="Shrinks along, %"
            path="warp"
            value={offer.warp === null ? '' : String(offer.warp)}
            placeholder={offer.same ? 'as this cloth' : 'as its fibre'}
            onSave={(v) => change({ warp: orNull(v) })}
          />
          <EntryText
            label="Shrinks across, %"
            path="weft"
            value={offer.weft === null ? '' : String(offer.weft)}
            placeholder={offer.same ? 'as this cloth' : 'as its fibre'}
            onSave={(v) => change({ weft: orNull(v) })}
          />
        </div>
        <EntryChoice
          label="The shop cuts in steps of"
          value={step?.value ?? ''}
          options={choices?.steps ?? []}
          placeholder={offer.step.text}
          onSave={(v) => change({ step: Number(v) })}
        />
        <div className="two">
          <EntryLength
            yardage
            label="The least it cuts"
            path="least"
            value={offer.least.text}
            onSave={(least) => change({ least })}
          />
          <EntryLength
            yardage
            label="In stock, in one piece"
            path="stock"
            value={offer.stock?.text ?? ''}
            placeholder="enough"
            onSave={(v) => change({ stock: orNull(v) })}
          />
        </div>
      </DraftScope>
    </Drawer>
  );
}

function ShopDrawer({
  open,
  onClose,
  onAdd,
}: {
  open: boolean;
  onClose: () => void;
  onAdd: (number: string) => Promise<void>;
}) {
  const { id, key, params } = useAsked();
  const list = useQuery({
    queryKey: keys.buy(id, key, 'shop'),
    enabled: open,
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/shop', { params })),
  });
  return (
    <Drawer closeIcon="Close" title={list.data?.shop ?? 'The shop’s list'} open={open} onClose={onClose} size={560}>
      <p className="quiet">Made-up cloths of a stand-in shop, served as a real price list would be.</p>
      <table className="offers">
        <thead>
          <tr>
            <th scope="col">cloth</th>
            <th scope="col">width</th>
            <th scope="col">price</th>
            <th scope="col">in stock</th>
            <th>
              <span className="unseen">put beside</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {list.data?.quotes.map((q) => (
            <tr key={q.number}>
              <th scope="row">
                {q.name}
                <small>
                  {q.made_of}, cut in {q.step.text}, at least {q.least.text}
                </small>
              </th>
              <td>{q.width.text}</td>
              <td>
                {q.price.toFixed(2)} a {q.price_unit === 'm' ? 'metre' : 'yard'}
              </td>
              <td>{q.stock.text}</td>
              <td>
                {q.added ? (
                  <span className="good">✓ beside</span>
                ) : (
                  <DoButton
                    size="small"
                    aria-label={`Put ${q.name} beside`}
                    onDo={async () => {
                      await onAdd(q.number);
                      await list.refetch();
                    }}
                  >
                    Put beside
                  </DoButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Drawer>
  );
}
