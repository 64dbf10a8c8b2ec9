import { Select } from 'antd';

export type ChoiceProps = {
  id: string;
  /** read out where no label stands beside it */
  label?: string;
  value: string;
  options: { value: string; label: string }[];
  placeholder: string;
  wrong: boolean;
  onChoose: (value: string) => void;
};

/** A choice from a long list, found by typing a part of its words. */
export default function SearchChoice({ id, label, value, options, placeholder, wrong, onChoose }: ChoiceProps) {
  return (
    <Select
      id={id}
      {...(label && { 'aria-label': label })}
      className="search-choice"
      showSearch={{ optionFilterProp: 'label' }}
      value={options.some((o) => o.value === value) ? value : null}
      placeholder={placeholder}
      status={wrong ? 'error' : ''}
      options={options}
      onChange={(chosen) => onChoose(chosen ?? '')}
    />
  );
}
