import { Modal } from 'antd'
import { useId, useState } from 'react'
import type { Command } from './commands'
import { found } from './commands'
import './palette.css'

/** Anything by its name: type, arrow, Enter. */
export function Palette({
  open,
  commands,
  onClose,
}: {
  open: boolean
  commands: readonly Command[]
  onClose: () => void
}) {
  return (
    <Modal
      open={open}
      onCancel={onClose}
      footer={null}
      closable={false}
      width={560}
      title={<span className="unseen">Find anything</span>}
      destroyOnHidden
    >
      <Finder commands={commands} onClose={onClose} />
    </Modal>
  )
}

function Finder({ commands, onClose }: { commands: readonly Command[]; onClose: () => void }) {
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const list = useId()
  const shown = found(commands, typed)
  const run = (command: Command | undefined) => {
    if (!command) return
    onClose()
    command.run()
  }
  return (
    <div className="palette">
      <input
        autoFocus
        type="text"
        role="combobox"
        aria-label="Find a step, a field, a candidate or an action"
        aria-expanded="true"
        aria-controls={list}
        aria-activedescendant={shown[at] ? `${list}-${at}` : undefined}
        placeholder="Find a step, a field, a candidate, an action"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value)
          setAt(0)
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt((now) => Math.min(now + 1, shown.length - 1))
          else if (event.key === 'ArrowUp') setAt((now) => Math.max(now - 1, 0))
          else if (event.key === 'Enter') run(shown[at])
          else return
          event.preventDefault()
        }}
      />
      <ul role="listbox" id={list} aria-label="Found">
        {shown.map((command, place) => (
          <li
            key={command.id}
            id={`${list}-${place}`}
            role="option"
            aria-selected={place === at}
            onPointerEnter={() => setAt(place)}
            onClick={() => run(command)}
          >
            <span>{command.title}</span>{' '}
            <span className="quiet">{command.keys ?? command.kind}</span>
          </li>
        ))}
      </ul>
      {shown.length === 0 ? <p className="quiet">Nothing is called that.</p> : null}
    </div>
  )
}
