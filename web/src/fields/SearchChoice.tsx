import { Select } from "antd";

export type ChoiceProps = {
  id: string;
  value: string;
  options: { value: string; label: string }[];
  placeholder: string;
  wrong: boolean;
  onChoose: (value: string) => void;
};

/** A choice from a long list, found by typing a part of its words. */
export default function SearchChoice({ id, value, options, placeholder, wrong, onChoose }: ChoiceProps) {
  return (
    <Select id={id} className="search-choice" showSearch={{ optionFilterProp: "label" }} value={options.some((o) => o.value === value) ? value : null}
      placeholder={placeholder} status={wrong ? "error" : ""} options={options} onChange={(chosen) => onChoose(chosen ?? "")} />
  );
}
