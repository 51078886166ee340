import { App, Button, Modal, Radio } from 'antd'
import { useEffect, useState } from 'react'
import type { Edit } from '../../api/client'
import { usePlace } from '../../model/place'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { useBuildWork } from '../builds/useBuilds'
import { useFiles } from '../builds/useFiles'
import { Faults } from '../shelf/Faults'
import { useShelfWork } from '../shelf/useShelf'
import './drop.css'
import type { Dropped, TableKind } from './what'
import { fieldOf, TABLES, whatIs } from './what'

/** Larger files are refused before they are read. */
const MOST_BYTES = 8 * 1024 * 1024

interface Table {
  readonly name: string
  readonly text: string
  readonly what: Extract<Dropped, { kind: 'table' }>
}

/** Takes files dropped anywhere on the page: builds, archives and parts at once, columns of numbers when it is said what they are. */
export function DropAnywhere({ onOpen }: { onOpen: (id: number) => void }) {
  const { message, modal } = App.useApp()
  const { take: takeBuild } = useFiles(onOpen)
  const { addAll, trouble } = useBuildWork(onOpen)
  const shelf = useShelfWork()
  const [table, setTable] = useState<Table>()
  const fault = shelf.refusal ?? trouble
  const [seen, setSeen] = useState<typeof fault>()
  const refuse = (name: string, why: string) =>
    void modal.error({ title: `${name} is not taken`, content: why })
  const read = async (file: File) => {
    const isZip = /\.zip$/i.test(file.name)
    if (!isZip && file.size > MOST_BYTES) {
      refuse(file.name, `It has ${Math.round(file.size / 1e6)} MB; at most 8 MB are read.`)
      return
    }
    const text = isZip ? '' : await file.text()
    const what = whatIs(file.name, text)
    if (what.kind === 'build') await takeBuild(file)
    else if (what.kind === 'table') setTable({ name: file.name, text, what })
    else if (what.kind === 'archive') {
      const added = await addAll(file)
      if (added) void message.success(`${added.builds} builds added from ${file.name}`)
    } else if (what.kind === 'parts') {
      const put = await shelf.take(text)
      if (put) void message.success(`${put.added} parts added, ${put.changed} changed`)
    } else
      refuse(
        file.name,
        'It is no build, no archive, no parts sheet and no columns of numbers. Nothing was changed.',
      )
  }
  const isOver = useDrops((file) => void read(file))
  return (
    <>
      {isOver ? (
        <div className="drop-over" role="status">
          Drop it: a build, an archive, a parts sheet, a measured lobe, a flow table, a pull
        </div>
      ) : null}
      {fault !== undefined && fault !== seen ? (
        <div className="drop-fault">
          {typeof fault === 'string' ? (
            <p className="fault" role="alert">
              {fault}
            </p>
          ) : (
            <Faults refusal={fault} />
          )}
          <Button size="small" onClick={() => setSeen(fault)}>
            Close
          </Button>
        </div>
      ) : null}
      {table ? (
        <TableDialog key={table.name} table={table} onClose={() => setTable(undefined)} />
      ) : null}
    </>
  )
}

/** Asks what columns of numbers are, and puts them there: one step of undo. */
function TableDialog({ table, onClose }: { table: Table; onClose: () => void }) {
  const session = useSession()
  const { goToField } = usePlace()
  const candidate = useCandidate()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const [as, setAs] = useState<TableKind>(table.what.guess)
  const put = () => {
    const field = fieldOf(as, index)
    const edit: Edit | undefined = as.endsWith('lobe')
      ? candidate && {
          import_lobe: {
            candidate: candidate.id,
            side: as === 'intake lobe' ? 'intake' : 'exhaust',
            text: table.text,
          },
        }
      : { paste: { field, text: table.text } }
    if (edit) session.edit(edit)
    onClose()
    goToField(field)
  }
  return (
    <Modal
      open
      title={`${table.name}: ${table.what.rows} rows of numbers`}
      okText="Take it"
      onOk={put}
      onCancel={onClose}
    >
      <p>What are they, of {candidate?.name ?? 'this candidate'}?</p>
      <Radio.Group
        className="drop-kinds"
        value={as}
        onChange={(event) => setAs(event.target.value as TableKind)}
        options={TABLES.map(({ as: value, label }) => ({ value, label }))}
      />
    </Modal>
  )
}

/** Whether files are held over the page; hears of each that is let go. */
function useDrops(onFile: (file: File) => void): boolean {
  const [isOver, setOver] = useState(false)
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true
    const over = (event: DragEvent) => {
      if (!hasFiles(event)) return
      // Without this the browser opens the file in the place of the page.
      event.preventDefault()
      setOver(true)
    }
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false)
    }
    const drop = (event: DragEvent) => {
      if (!hasFiles(event)) return
      event.preventDefault()
      setOver(false)
      for (const file of event.dataTransfer?.files ?? []) onFile(file)
    }
    window.addEventListener('dragover', over)
    window.addEventListener('dragleave', leave)
    window.addEventListener('drop', drop)
    return () => {
      window.removeEventListener('dragover', over)
      window.removeEventListener('dragleave', leave)
      window.removeEventListener('drop', drop)
    }
  }, [onFile])
  return isOver
}
