import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { HistoryReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

const KINDS: Record<HistoryReport['events'][number]['kind'], string> = {
  plan: 'plan',
  bench: 'bench',
  assembly: 'assembly',
  dyno: 'dyno',
  service: 'service',
}

/** What became of the build by its days: plan, readings, signatures, pulls, service, each with its revision. */
export function Story() {
  const system = useSessionPart((state) => state.system)
  const { data, error } = useStory()
  if (error)
    return (
      <p className="fault" role="alert">
        {error.message}
      </p>
    )
  if (!data) return <p className="quiet">Reading what became of it…</p>
  return (
    <>
      <p>{data.says[system]}</p>
      <div className="wide-table">
        <table className="figures story" aria-label="What became of it">
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col">Of</th>
              <th scope="col">What</th>
              <th scope="col">What came of it</th>
              <th scope="col">By</th>
              <th scope="col">Revision</th>
            </tr>
          </thead>
          <tbody>
            {data.events.map((own, place) => (
              <tr key={place}>
                <th scope="row">{own.day === '' ? 'no day' : own.day}</th>
                <td>
                  <span className={`kind ${own.kind}`}>{KINDS[own.kind]}</span>
                </td>
                <td className="words">{own.title}</td>
                <td className="words">{own.says[system]}</td>
                <td>{own.by}</td>
                <td>{own.revision ?? 'not saved'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}

function useStory() {
  const document = useSessionPart((state) => state.history.present)
  const { id: build, revision } = useSessionPart((state) => state.summary)
  return useQuery<HistoryReport>({
    queryKey: ['history', document, build, revision],
    queryFn: () => answered(client.POST('/api/history', { body: { document, build } })),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
