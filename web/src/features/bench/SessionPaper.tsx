import { useQuery } from '@tanstack/react-query'
import type { SessionSheet } from '../../api/client'
import { answered, client } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'
import { spoken } from '../fields/labels'
import '../sheet/sheet.css'
import { SheetTools } from '../sheet/SheetTools'
import './sessions.css'

/** A session on paper: what was read of it, and lines for a pencil. */
export function SessionPaper({ onClose }: { readonly onClose: () => void }) {
  const { place } = usePlace()
  const document = useSessionPart((state) => state.history.present)
  const name = useSessionPart((state) => state.answer?.name ?? state.summary.name)
  const session = place.focus ?? ''
  const { data, isError } = useQuery<SessionSheet>({
    queryKey: ['session sheet', document, session],
    queryFn: () => answered(client.POST('/api/bench-sheet', { body: { document, session } })),
    retry: false,
  })
  return (
    <article className="sheet session-paper">
      <SheetTools onClose={onClose} />
      {isError ? <p>There is no such session.</p> : null}
      {data ? <Laid sheet={data} name={name} /> : null}
      <p className="caution">
        Turn the engine by hand only, plugs or injectors out. A compressed spring can injure: proper
        compressor, eye protection. The maker's sheet and a competent machinist's measurement stand
        above any computed number.
      </p>
    </article>
  )
}

function Laid({ sheet, name }: { sheet: SessionSheet; name: string }) {
  return (
    <>
      <h1>
        {sheet.title}, {name}
      </h1>
      <p>
        Day: {sheet.date || '________'} &nbsp; Hand: {sheet.by || '________________'} &nbsp;
        {sheet.note}
      </p>
      {sheet.tools.map((tool) => (
        <p key={tool} className="quiet">
          {tool}
        </p>
      ))}
      {sheet.tables.map((table) => (
        <table key={table.title} className="figures ruled">
          <caption>{table.title}</caption>
          <thead>
            <tr>
              <th scope="col">Reading</th>
              {table.columns.map((column) => (
                <th key={column} scope="col">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, place) => (
              <tr key={place}>
                <th scope="row">{row.says}</th>
                {row.cells.map((cell, at) => (
                  <td key={table.columns[at]}>{spoken(cell)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </>
  )
}
