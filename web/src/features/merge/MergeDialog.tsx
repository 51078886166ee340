import { Button, Modal, Radio } from 'antd'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { BuildSummary, Merged } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'

/** A stale save: what was saved meanwhile against what this tab has, field by field, nothing lost. */
export function MergeDialog({ onKept }: { onKept: (build: number) => void }) {
  const stale = useSessionPart((state) => state.staleAgainst)
  const [put, setPut] = useState<number>()
  if (stale === undefined) return null
  return (
    <Modal
      open={put !== stale}
      title={`Saved elsewhere meanwhile: revision ${stale}`}
      width={720}
      footer={null}
      onCancel={() => setPut(stale)}
      destroyOnHidden
    >
      <Merging key={stale} onKept={onKept} />
    </Modal>
  )
}

function Merging({ onKept }: { onKept: (build: number) => void }) {
  const session = useSession()
  const { summary, history, candidate } = session.read()
  const [theirsFor, setTheirsFor] = useState<readonly string[]>([])
  const [refused, setRefused] = useState<string>()
  const mine = history.present
  const base = useQuery({
    queryKey: ['revision', summary.id, summary.revision],
    queryFn: () =>
      answered(
        client.GET('/api/builds/{id}/revisions/{number}', {
          params: { path: { id: summary.id, number: summary.revision } },
        }),
      ),
  })
  const newest = useQuery({
    queryKey: ['newest', summary.id],
    queryFn: () =>
      answered(client.GET('/api/builds/{id}', { params: { path: { id: summary.id } } })),
    gcTime: 0,
    staleTime: 0,
  })
  const ready =
    base.data && newest.data
      ? { base: base.data.document, mine, theirs: newest.data.document }
      : undefined
  const merged = useQuery({
    queryKey: ['merge', ready, theirsFor],
    enabled: ready !== undefined,
    placeholderData: (before: Merged | undefined) => before,
    queryFn: () =>
      answered(
        client.POST('/api/merge', {
          body: { ...(ready ?? { base: '', mine: '', theirs: '' }), theirs_for: [...theirsFor] },
        }),
      ),
  })
  const trouble = base.error ?? newest.error ?? merged.error
  if (trouble)
    return (
      <p className="fault" role="alert">
        {trouble.message}
      </p>
    )
  if (!merged.data || !newest.data || !ready) return <p className="quiet">Comparing…</p>
  const saved: BuildSummary = newest.data.summary
  const keepCandidate = async () => {
    try {
      const kept = await answered(
        client.POST('/api/merge', {
          body: {
            ...ready,
            keep_candidate: candidate ?? session.read().answer?.candidates[0]?.id ?? 'a',
          },
        }),
      )
      if (kept.faults.length > 0)
        setRefused(`${kept.faults[0]?.label ?? ''} needs ${kept.faults[0]?.needs ?? ''}`)
      else session.saveOver(saved, kept.document)
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'it was refused')
    }
  }
  return (
    <>
      <MergedFields merged={merged.data} theirsFor={theirsFor} onChoose={setTheirsFor} />
      {merged.data.faults.length > 0 ? (
        <p className="fault" role="alert">
          Together they contradict each other: {merged.data.faults[0]?.label} needs{' '}
          {merged.data.faults[0]?.needs}. Choose otherwise, or keep yours apart.
        </p>
      ) : null}
      {refused === undefined ? null : (
        <p className="fault" role="alert">
          Not kept: {refused}.
        </p>
      )}
      <div className="dialog-actions">
        <Button
          type="primary"
          disabled={merged.data.faults.length > 0}
          onClick={() => session.saveOver(saved, merged.data.document)}
        >
          Save both together
        </Button>
        <Button onClick={() => void keepCandidate()}>Keep mine as a candidate beside it</Button>
        <Button
          onClick={() => {
            void session.saveAsNew().then((made) => {
              if (made === undefined) setRefused(session.read().trouble ?? 'it could not be kept')
              else onKept(made)
            })
          }}
        >
          Keep mine as a new build
        </Button>
      </div>
    </>
  )
}

function MergedFields({
  merged,
  theirsFor,
  onChoose,
}: {
  merged: Merged
  theirsFor: readonly string[]
  onChoose: (fields: readonly string[]) => void
}) {
  return (
    <>
      {merged.conflicts.length === 0 ? (
        <p>No field was changed on both sides.</p>
      ) : (
        <table className="figures">
          <caption>Changed on both sides: choose</caption>
          <thead>
            <tr>
              <td />
              <th scope="col">began as</th>
              <th scope="col">mine</th>
              <th scope="col">saved elsewhere</th>
            </tr>
          </thead>
          <tbody>
            {merged.conflicts.map((conflict) => (
              <tr key={conflict.field}>
                <th scope="row">{conflict.label}</th>
                <td className="quiet">{conflict.base || 'not given'}</td>
                {(['mine', 'theirs'] as const).map((side) => (
                  <td key={side}>
                    <Radio
                      name={conflict.field}
                      checked={theirsFor.includes(conflict.field) === (side === 'theirs')}
                      onChange={() => {
                        onChoose([
                          ...theirsFor.filter((field) => field !== conflict.field),
                          ...(side === 'theirs' ? [conflict.field] : []),
                        ])
                      }}
                    >
                      {conflict[side] || 'removed'}
                    </Radio>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {merged.taken.length > 0 ? (
        <>
          <p>Taken over from what was saved:</p>
          <ul>
            {merged.taken.slice(0, 40).map((d) => (
              <li key={d.field}>
                {d.label}: <s>{d.before || 'not given'}</s> → {d.after || 'not given'}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  )
}
