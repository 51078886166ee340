import { App, Button } from 'antd'
import { useQueryClient } from '@tanstack/react-query'
import type { ChangeEvent } from 'react'
import { useRef } from 'react'
import { answered, client, Refusal } from '../../api/client'
import type { SessionState } from '../session/session'
import { useSession } from '../session/useSession'

/** Import of a build document as a new build, export of the one on screen. */
export function FileButtons({ onOpen }: { onOpen: (id: number) => void }) {
  const picker = useRef<HTMLInputElement>(null)
  const queries = useQueryClient()
  const { modal } = App.useApp()
  const session = useSession()
  const read = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0]
    event.target.value = ''
    if (!file) return
    try {
      const made = await answered(client.POST('/api/builds', { body: { document: await file.text() } }))
      await queries.invalidateQueries({ queryKey: ['builds'] })
      onOpen(made.id)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      modal.error({ title: `${file.name} is not taken`, content: <FaultList refusal={error} /> })
    }
  }
  return (
    <>
      <input ref={picker} type="file" accept=".json,application/json" hidden aria-label="Build document" onChange={(event) => { void read(event) }} />
      <Button size="small" onClick={() => picker.current?.click()}>Import</Button>
      <Button size="small" onClick={() => { download(session.read()) }}>Export</Button>
    </>
  )
}

function FaultList({ refusal }: { refusal: Refusal }) {
  const faults = refusal.problem.faults ?? []
  if (faults.length === 0) return <p>{refusal.problem.detail}</p>
  return (
    <ul className="fault-list">
      {faults.slice(0, 20).map((fault) => (
        <li key={`${fault.field}${fault.needs}`}><b>{fault.field}</b>: {fault.given} — needs {fault.needs}{fault.cure ? `; ${fault.cure}` : ''}</li>
      ))}
    </ul>
  )
}

function download({ history, summary }: SessionState): void {
  const link = window.document.createElement('a')
  link.href = URL.createObjectURL(new Blob([history.present], { type: 'application/json' }))
  link.download = `${summary.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
