import { Button, Dropdown } from 'antd'
import { useRef } from 'react'
import { usePlace } from '../model/place'
import { useMe } from '../model/useMe'
import { useFiles } from '../features/builds/useFiles'

interface Props {
  readonly dark: boolean
  readonly readOnly: boolean
  readonly onDark: () => void
  readonly onOpen: (id: number) => void
  readonly onDevices: () => void
}

/** What is needed now and then: files, paper, light. */
export function MoreMenu({ dark, readOnly, onDark, onOpen, onDevices }: Props) {
  const { me } = useMe()
  const { openPaper, openShelf } = usePlace()
  const picker = useRef<HTMLInputElement>(null)
  const { take, give } = useFiles(onOpen)
  const items = [
    {
      key: 'import',
      label: 'Import a build document',
      disabled: readOnly,
      onClick: () => picker.current?.click(),
    },
    { key: 'export', label: 'Export this build', onClick: give },
    {
      key: 'shelf',
      label: 'Parts shelf',
      onClick: () => openShelf('cam'),
    },
    { key: 'sheet', label: 'Build sheet, to print', onClick: () => openPaper('sheet') },
    // Who is let in is the main screen's to say.
    ...(me?.here ? [{ key: 'devices', label: 'Devices of the shop', onClick: onDevices }] : []),
    { key: 'dark', label: dark ? 'Light' : 'Dark', onClick: onDark },
  ]
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="Build document"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void take(file)
        }}
      />
      <Dropdown trigger={['click']} menu={{ items }}>
        <Button size="small" aria-label="More: import, export, print, light or dark">
          More ▾
        </Button>
      </Dropdown>
    </>
  )
}
