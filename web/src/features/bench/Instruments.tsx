import { Button, Checkbox, Input, Modal, Select } from 'antd'
import { useState } from 'react'
import type { Instrument } from '../../api/client'
import { Refusal } from '../../api/client'
import { useInstruments } from './useInstruments'

const MEASURES = ['length', 'force', 'angle', 'mass', 'pressure', 'volume', 'flow', 'pull'] as const

const FRESH: Instrument = {
  name: '',
  at: '',
  format: { measures: 'length', unit: '', before: '', decimals: 0, turned: false, hold: '' },
}

/** The shop's instruments: where each is, and how it writes its lines. */
export function Instruments({ onClose }: { readonly onClose: () => void }) {
  const { all, put, remove } = useInstruments()
  const [own, setOwn] = useState(FRESH)
  const trouble = put.error instanceof Refusal ? put.error.problem.detail : undefined
  const form = own.format
  const set = (change: Partial<Instrument['format']>) =>
    setOwn({ ...own, format: { ...form, ...change } })
  return (
    <Modal open title="Instruments" footer={null} onCancel={onClose} width={640}>
      {all.length > 0 ? (
        <table className="figures">
          <tbody>
            {all.map((one) => (
              <tr key={one.name}>
                <th scope="row">{one.name}</th>
                <td>{one.at}</td>
                <td>{one.format.measures}</td>
                <td>
                  <Button size="small" onClick={() => setOwn(one)}>
                    Change
                  </Button>{' '}
                  <Button
                    size="small"
                    aria-label={`Forget ${one.name}`}
                    onClick={() => remove.mutate(one.name)}
                  >
                    Forget
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="quiet">
          Dial, caliper, scale, tester, wheel: whatever sends a line of text for a reading. Those
          that type like a keyboard need nothing of this.
        </p>
      )}
      <form
        className="instrument-form"
        aria-label="An instrument"
        onSubmit={(event) => {
          event.preventDefault()
          put.mutate(own, { onSuccess: () => setOwn(FRESH) })
        }}
      >
        <Text label="Name" value={own.name} onChange={(name) => setOwn({ ...own, name })} />
        <Text
          label="At"
          value={own.at}
          hint="tcp 127.0.0.1:4001, or serial /dev/ttyUSB0 9600"
          onChange={(at) => setOwn({ ...own, at })}
        />
        <label>
          Measures
          <Select
            aria-label="Measures"
            value={form.measures}
            options={MEASURES.map((value) => ({ value, label: value }))}
            onChange={(measures) => set({ measures })}
          />
        </label>
        <Text
          label="Unit, where it sends none"
          value={form.unit ?? ''}
          hint="in"
          onChange={(unit) => set({ unit })}
        />
        <Text
          label="Text before the number"
          value={form.before ?? ''}
          onChange={(before) => set({ before })}
        />
        <Text
          label="Text of a held reading"
          value={form.hold ?? ''}
          onChange={(hold) => set({ hold })}
        />
        <Text
          label="Digits behind a point that is left out"
          value={String(form.decimals ?? 0)}
          onChange={(text) => set({ decimals: Number.parseInt(text, 10) || 0 })}
        />
        <Checkbox
          checked={form.turned ?? false}
          onChange={(event) => set({ turned: event.target.checked })}
        >
          Its sign is turned
        </Checkbox>
        {trouble ? (
          <p className="fault" role="alert">
            {trouble}
          </p>
        ) : null}
        <Button htmlType="submit" type="primary">
          Keep
        </Button>
      </form>
    </Modal>
  )
}

function Text({
  label,
  value,
  hint,
  onChange,
}: {
  label: string
  value: string
  hint?: string
  onChange: (text: string) => void
}) {
  return (
    <label>
      {label}
      <Input
        value={value}
        placeholder={hint}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  )
}
