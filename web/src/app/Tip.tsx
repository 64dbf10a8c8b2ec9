import { Tooltip, type TooltipProps } from 'antd';

/** What a thing is, when the hand rests on it or the focus comes to it; gone without a trace when it leaves. */
export function Tip(props: TooltipProps) {
  return <Tooltip mouseEnterDelay={0.6} destroyOnHidden {...props} />;
}
