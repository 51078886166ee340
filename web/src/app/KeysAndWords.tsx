import { Modal } from 'antd'
import { useGlossary } from '../features/glossary/useGlossary'
import type { Action } from './actions'
import { helpOf } from './actions'

interface Props {
  readonly open: boolean
  readonly actions: readonly Action[]
  readonly onClose: () => void
}

/** Every key, and the trade's words in a sentence each. */
export function KeysAndWords({ open, actions, onClose }: Props) {
  return (
    <Modal
      open={open}
      onCancel={onClose}
      footer={null}
      width={680}
      title="Keys and words"
      destroyOnHidden
    >
      <table className="figures keys">
        <tbody>
          {helpOf(actions).map(([keys, what]) => (
            <tr key={keys}>
              <th scope="row">
                <kbd>{keys}</kbd>
              </th>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Words />
    </Modal>
  )
}

function Words() {
  const words = useGlossary().data
  if (!words) return null
  return (
    <dl className="glossary">
      {words.map((term) => (
        <div key={term.word}>
          <dt>{term.word}</dt>
          <dd>{term.meaning}</dd>
        </div>
      ))}
    </dl>
  )
}
