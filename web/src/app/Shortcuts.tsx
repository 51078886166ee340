import { Modal } from 'antd'
import { useGlossary } from '../features/glossary/useGlossary'

const SHORTCUTS: readonly (readonly [string, string])[] = [
  ['/ or Ctrl+K', 'find a step, a field, a candidate, an action'],
  ['?', 'this page'],
  ['Ctrl+S', 'save'],
  ['Ctrl+Z, Ctrl+Shift+Z', 'undo, redo, without limit'],
  ['Alt+1 to Alt+9, Alt+0, Alt+-', 'the steps of the work in their order'],
  ['Alt+Left, Alt+Right', 'the candidate before, the next one'],
  ['Alt+S', 'the strip tall or slim, remembered by step'],
  ['Left, Right on the strip', 'crank by a degree; ten with Shift'],
  ['+, -, 0 on the strip', 'zoom in, out, the whole cycle'],
  ['Left, Right on an event', 'nudge it by half a degree; five with Shift'],
  ['Enter, Escape in a field', 'take what is typed, take it back'],
]

/** Every shortcut, and the trade's words in a sentence each. */
export function Shortcuts({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} onCancel={onClose} footer={null} width={680} title="Keys and words" destroyOnHidden>
      <table className="figures keys"><tbody>{SHORTCUTS.map(([keys, what]) => <tr key={keys}><th scope="row"><kbd>{keys}</kbd></th><td>{what}</td></tr>)}</tbody></table>
      <Words />
    </Modal>
  )
}

function Words() {
  const words = useGlossary().data
  if (!words) return null
  return <dl className="glossary">{words.map((term) => <div key={term.word}><dt>{term.word}</dt><dd>{term.meaning}</dd></div>)}</dl>
}
