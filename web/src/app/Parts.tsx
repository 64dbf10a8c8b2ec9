import { Grid, Tabs } from 'antd';
import type { ReactNode } from 'react';
import { Sections } from './Sections';

/** The parts of a stage as tabs, with the one that is chosen below them; on a telephone as words that wrap. */
export function Parts<T extends string>({
  label,
  parts,
  value,
  onChoose,
  children,
}: {
  label: string;
  parts: readonly { value: T; label: string }[];
  value: T;
  onChoose: (value: T) => void;
  children: ReactNode;
}) {
  const narrow = Grid.useBreakpoint().md === false;
  if (narrow)
    return (
      <>
        <Sections label={label} parts={parts} value={value} onChoose={onChoose} />
        {children}
      </>
    );
  const items = parts.map((part) => ({
    key: part.value,
    label: part.label,
    children: part.value === value ? children : null,
  }));
  return (
    <Tabs className="parts" activeKey={value} items={items} destroyOnHidden onChange={(key) => onChoose(key as T)} />
  );
}
