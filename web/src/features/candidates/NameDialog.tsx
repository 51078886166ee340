import { ConfigProvider, Input, Modal } from 'antd'
import { useState } from 'react'
import { themeOf } from '../../model/theme'
import type { Asked } from './useCandidateActions'

/** Asks for a name; Enter takes it. */
export function NameDialog({
  asked,
  onDone,
  onCancel,
}: {
  asked: Asked | undefined
  onDone: (name: string) => void
  onCancel: () => void
}) {
  return (
    // The bar it opens from is dark in both themes; the dialog is not.
    <ConfigProvider theme={themeOf(document.documentElement.dataset['theme'] === 'dark')}>
      <Modal
        open={asked !== undefined}
        title={asked?.title}
        footer={null}
        onCancel={onCancel}
        destroyOnHidden
      >
        {asked ? <NameInput start={asked.name} onDone={onDone} /> : null}
      </Modal>
    </ConfigProvider>
  )
}

function NameInput({ start, onDone }: { start: string; onDone: (name: string) => void }) {
  const [name, setName] = useState(start)
  return (
    <Input.Search
      autoFocus
      aria-label="Name"
      maxLength={120}
      value={name}
      enterButton="Take it"
      onFocus={(event) => event.target.select()}
      onChange={(event) => setName(event.target.value)}
      onSearch={() => {
        if (name.trim() !== '') onDone(name.trim())
      }}
    />
  )
}
