import { Modal } from 'antd';
import { useEffect } from 'react';
import { onPage } from './hand';

const SHEET: readonly (readonly [string, readonly (readonly [string, string])[]])[] = [
  [
    'Everywhere',
    [
      ['?', 'this sheet'],
      ['Ctrl Z', 'take back the last thing done'],
      ['Ctrl Shift Z', 'do it again'],
      ['Alt M', "to the stage's main command"],
      ['Alt Page Down', 'the next stage; with Page Up the one before'],
      ['Alt C', "the garment's next cloth"],
      ['Esc', 'close what lies on top'],
    ],
  ],
  [
    'In a field',
    [
      ['Enter', 'keep it and go on to the next field'],
      ['Tab', 'keep it and go on'],
      ['Esc', 'what was kept before comes back'],
    ],
  ],
  [
    'On the lay',
    [
      ['← → ↑ ↓', 'push the chosen piece by the step of the tape'],
      ['Shift', 'with an arrow: ten times as far; with Space: choose several'],
      ['Alt', 'with an arrow: to the next place at which its bars agree'],
      ['T  Q', 'turn end for end, by a quarter'],
      ['O', 'turn over'],
      ['A', 'aside, onto the tray'],
      ['L', 'lock, or unlock'],
      ['Page Down', 'the next piece; with Page Up the one before'],
      ['+  −  0', 'nearer, further, the whole lay'],
      ['Esc', 'choose nothing; let go without laying'],
    ],
  ],
  [
    'At the cutting table',
    [
      ['Enter', 'this piece is cut'],
      ['← →', 'the piece before, the next one'],
      ['U  Ctrl Z', 'the last cut was marked by mistake'],
      ['W', 'something went wrong with this piece'],
      ['R', 'read it aloud'],
    ],
  ],
  [
    'In a picture of pieces',
    [
      ['← → ↑ ↓', 'move the chosen point, or go to the next piece'],
      ['Shift', 'with an arrow: further'],
      ['Space', 'corner or smooth'],
      ['+  Delete', 'add a point, take one out'],
      ['Page Down', 'the next point'],
    ],
  ],
];

const TYPED = /^(?:text|search|number|)$/;
const typing = (at: HTMLElement) =>
  at.tagName === 'TEXTAREA' ||
  at.tagName === 'SELECT' ||
  at.isContentEditable ||
  (at.tagName === 'INPUT' && TYPED.test(at.getAttribute('type') ?? ''));

/** The stage's main command: what is filled with the colour of action, or else the first field. */
export function toMainCommand() {
  const main = document.querySelector<HTMLElement>('main');
  const shown = (all: NodeListOf<HTMLElement> | undefined) =>
    [...(all ?? [])].find((one) => one.offsetParent !== null && !one.hasAttribute('disabled'));
  const marked = shown(main?.querySelectorAll('[data-main]'));
  // of a part that is marked, its first field
  const command =
    (marked?.matches('button, a, input') ? marked : shown(marked?.querySelectorAll('input, button'))) ??
    shown(main?.querySelectorAll('.ant-btn-primary')) ??
    shown(main?.querySelectorAll('input, select')) ??
    shown(main?.querySelectorAll('button:not(.skip-here)')) ??
    main;
  command?.focus();
  command?.scrollIntoView({ block: 'nearest' });
}

/** Goes to the link `by` places further on among these, round and round; the hand follows to the stage. */
function follow(links: string, by: number) {
  const all = [...document.querySelectorAll<HTMLElement>(links)];
  const here = all.findIndex((one) => one.getAttribute('aria-current'));
  if (all.length > 1) all[(here + by + all.length) % all.length]!.click();
}

/** The keys that work on every page, and the sheet that lists them all. */
export function Keys({
  onBack,
  onAgain,
  open,
  onOpen,
}: {
  onBack: () => void;
  onAgain: () => void;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  useEffect(() => {
    function down(event: KeyboardEvent) {
      const at = event.target as HTMLElement;
      const command = event.ctrlKey || event.metaKey;
      if (event.key === '?' && !typing(at)) onOpen(true);
      else if (event.altKey && event.key.toLowerCase() === 'm') toMainCommand();
      else if (event.altKey && (event.key === 'PageDown' || event.key === 'PageUp'))
        follow('a.rail-stage', event.key === 'PageDown' ? 1 : -1);
      else if (event.altKey && event.key.toLowerCase() === 'c') follow('.cloths a', 1);
      else if (command && 'zy'.includes(event.key.toLowerCase())) {
        // while something is being typed, or in a form that is not kept yet, the keys are the field's own
        if (
          at.closest('.ant-drawer') ||
          (typing(at) && (at.dataset['entry'] !== 'true' || at.dataset['pending'] === 'true'))
        )
          return;
        (event.shiftKey || event.key.toLowerCase() === 'y' ? onAgain : onBack)();
      } else return;
      event.preventDefault();
    }
    window.addEventListener('keydown', down);
    return () => window.removeEventListener('keydown', down);
  }, [onBack, onAgain, onOpen]);
  return (
    <Modal title="Keys" open={open} onCancel={() => onOpen(false)} footer={null} width={560} closeIcon="Close">
      <div className="keys">
        {SHEET.map(([where, keys]) => (
          <section key={where}>
            <h2>{where}</h2>
            <dl>
              {keys.map(([key, does]) => (
                <div key={key}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
}

/** The first two stops of a page: past the rail and the head. */
export function Skip() {
  return (
    <nav className="skip" aria-label="Skip">
      <button type="button" onClick={onPage}>
        To the stage
      </button>
      <button type="button" onClick={toMainCommand}>
        To its main command
      </button>
    </nav>
  );
}
