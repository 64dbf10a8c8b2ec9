import { Tabs } from "antd";
import type { ReactNode } from "react";

/** The parts of a stage as tabs, with the one that is chosen below them. */
export function Parts<T extends string>({ parts, value, onChoose, children }: {
  parts: readonly { value: T; label: string }[]; value: T; onChoose: (value: T) => void; children: ReactNode;
}) {
  const items = parts.map((part) => ({ key: part.value, label: part.label, children: part.value === value ? children : null }));
  return <Tabs className="parts" activeKey={value} items={items} destroyOnHidden onChange={(key) => onChoose(key as T)} />;
}
