import { App } from 'antd'
import { useQueryClient } from '@tanstack/react-query'
import { answered, client, Refusal } from '../../api/client'
import { download } from '../pictures/export'
import { useSession } from '../../model/useSession'

/** Larger files are refused before they are read. */
const MOST_BYTES = 4 * 1024 * 1024

/** Import of a build document as a new build, export of the one on screen. */
export function useFiles(onOpen: (id: number) => void) {
  const queries = useQueryClient()
  const { modal } = App.useApp()
  const session = useSession()
  const take = async (file: File) => {
    if (file.size > MOST_BYTES) {
      modal.error({
        title: `${file.name} is not taken`,
        content: `It has ${Math.round(file.size / 1e6)} MB; a build document has at most 4 MB.`,
      })
      return
    }
    try {
      const made = await answered(
        client.POST('/api/builds', { body: { document: await file.text() } }),
      )
      await queries.invalidateQueries({ queryKey: ['builds'] })
      onOpen(made.id)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      modal.error({ title: `${file.name} is not taken`, content: <FaultList refusal={error} /> })
    }
  }
  const give = () => {
    const { history, summary } = session.read()
    download(
      `${summary.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.json`,
      history.present,
      'application/json',
    )
  }
  return { take, give }
}

function FaultList({ refusal }: { refusal: Refusal }) {
  const faults = refusal.problem.faults ?? []
  if (faults.length === 0) return <p>{refusal.problem.detail}</p>
  return (
    <ul className="fault-list">
      {faults.slice(0, 20).map((fault) => (
        <li key={`${fault.field}${fault.needs}`}>
          <b>{fault.label}</b>: {fault.given}, needs {fault.needs}
          {fault.cure ? `; ${fault.cure}` : ''}
        </li>
      ))}
    </ul>
  )
}
