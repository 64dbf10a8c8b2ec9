import { useQueryClient } from '@tanstack/react-query';
import { Segmented } from 'antd';
import { api, saved } from '../api/client';
import { useChoices, useSettings } from '../api/hooks';
import { EntryChoice, EntryLength, EntryText } from '../fields/Entry';

type Change = {
  system?: 'metric' | 'imperial';
  graduation?: string;
  shop_step?: number;
  currency?: string;
  asked?: boolean;
};

/** Changes what holds for the person, whatever is made. */
export function useSettingsChange() {
  const client = useQueryClient();
  return async (body: Change) => {
    await saved(api.PATCH('/api/settings', { body }));
    // what is still on its way was asked for in the other units
    await client.cancelQueries();
    await client.invalidateQueries();
  };
}

export function Units() {
  const change = useSettingsChange();
  const settings = useSettings();
  return (
    <Segmented<'metric' | 'imperial'>
      aria-label="Units"
      options={[
        { value: 'metric', label: 'cm' },
        { value: 'imperial', label: 'in / yd' },
      ]}
      value={settings?.system ?? 'metric'}
      onChange={(system) => void change({ system })}
    />
  );
}

/** Units, tape, the shop's step and money: told once, for everything that is made. */
export function Yours() {
  const change = useSettingsChange();
  const settings = useSettings();
  const choices = useChoices();
  if (!settings) return <p className="quiet">Fetching …</p>;
  const step = choices?.steps.find((s) => Math.abs(Number(s.value) - settings.shop_step.mm) < 0.01);
  return (
    <div className="yours">
      <div className="entry">
        <span>You measure in</span>
        <Units />
      </div>
      <EntryLength
        label="Your tape is read to"
        path="graduation"
        value={settings.graduation.text}
        onSave={(graduation) => change({ graduation })}
      />
      <EntryChoice
        label="Your shop cuts in steps of"
        value={step?.value ?? ''}
        options={choices?.steps ?? []}
        placeholder={settings.shop_step.text}
        onSave={(v) => change({ shop_step: Number(v) })}
      />
      <EntryText
        label="Money is written with"
        path="currency"
        value={settings.currency}
        placeholder="such as €, £ or $"
        onSave={(currency) => change({ currency })}
      />
    </div>
  );
}
