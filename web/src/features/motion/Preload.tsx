import type { TrainReport } from '../../api/client'
import { spoken } from '../fields/labels'
import { useSessionPart } from '../../model/useSession'
import { SIDES, useTrain } from './useTrain'

/** Preload after the work on the bench, or lash hot and cold. */
export function Preload() {
  const { train } = useTrain()
  const system = useSessionPart((state) => state.system)
  if (!train) return null
  const keys = train.intake.preload?.work.map((work) => work.key) ?? []
  const cell = (of: (side: TrainReport) => string | undefined) =>
    SIDES.map((side) => <td key={side}>{of(train[side]) ?? ''}</td>)
  return (
    <>
      {SIDES.some((side) => train[side].preload) ? (
        <table className="figures">
          <thead>
            <tr>
              <th scope="col">Preload at the plunger</th>
              {SIDES.map((side) => (
                <th key={side} scope="col">
                  {side}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">As measured or planned</th>
              {cell((side) => side.preload?.now[system])}
            </tr>
            {keys.map((key) => (
              <tr key={key}>
                <th scope="row">{spoken(key)}</th>
                {cell(
                  (side) => side.preload?.work.find((work) => work.key === key)?.change[system],
                )}
              </tr>
            ))}
            {keys.length > 0 ? (
              <tr>
                <th scope="row">After it</th>
                {cell((side) => side.preload?.after[system])}
              </tr>
            ) : null}
            {keys.length > 0 ? (
              <tr>
                <th scope="row">Pushrod that brings it back</th>
                {cell((side) => side.preload?.pushrod[system])}
              </tr>
            ) : null}
            <tr>
              <th scope="row">Verdict</th>
              {cell((side) => side.preload?.word)}
            </tr>
          </tbody>
        </table>
      ) : null}
      {SIDES.some((side) => train[side].lash) ? (
        <table className="figures">
          <thead>
            <tr>
              <th scope="col">Lash at the valve</th>
              {SIDES.map((side) => (
                <th key={side} scope="col">
                  {side}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Hot</th>
              {cell((side) => side.lash?.hot[system])}
            </tr>
            <tr>
              <th scope="row">Grows with heat by</th>
              {cell((side) => side.lash?.growth[system])}
            </tr>
            <tr>
              <th scope="row">So set cold</th>
              {cell((side) => side.lash?.cold[system])}
            </tr>
          </tbody>
        </table>
      ) : null}
    </>
  )
}
