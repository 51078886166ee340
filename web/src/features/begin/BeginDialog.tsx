import { Button, Input, Modal } from 'antd'
import { useState } from 'react'
import type { FamilyReport, UnitSystem } from '../../api/client'
import { useBuildWork } from '../builds/useBuilds'
import { spoken } from '../fields/labels'
import { AskedFields } from './AskedFields'
import './begin.css'
import { FirstCam } from './FirstCam'
import type { Chosen } from './useBeginning'
import { useBeginning, useFamilies } from './useBeginning'

interface Props {
  readonly open: boolean
  readonly system: UnitSystem
  readonly onClose: () => void
  readonly onOpen: (build: number) => void
}

/** From a blank page to a build that is complete and computed: a likely engine, and what is known of one's own. */
export function BeginDialog({ open, system, onClose, onOpen }: Props) {
  return (
    <Modal
      open={open}
      onCancel={onClose}
      footer={null}
      width={1020}
      style={{ top: 24 }}
      title="Begin a build"
      destroyOnHidden
    >
      <Beginning
        system={system}
        onMade={(build) => {
          onOpen(build)
          onClose()
        }}
      />
    </Modal>
  )
}

function Beginning({ system, onMade }: { system: UnitSystem; onMade: (build: number) => void }) {
  const families = useFamilies()
  const [chosen, setChosen] = useState<Chosen>({
    name: '',
    family: 'middle_v8',
    heads: '',
    use: '',
  })
  const { report, faults, trouble, settled, known, onKnown } = useBeginning(chosen, system)
  const { keep, begin, trouble: refused } = useBuildWork(onMade)
  const family = families.data?.find((each) => each.family === chosen.family)
  if (families.error)
    return (
      <p className="fault" role="alert">
        {families.error.message}
      </p>
    )
  if (!families.data || !family) return <p className="quiet">Reading the families…</p>
  const name = chosen.name.trim()
  return (
    <div className="begin">
      <Families
        families={families.data}
        chosen={chosen.family}
        onChoose={(next) => setChosen({ ...chosen, family: next, heads: '', use: '' })}
      />
      <div className="begin-row">
        <Input
          aria-label="Name of the new build"
          placeholder="Name of the build"
          maxLength={120}
          value={chosen.name}
          onChange={(event) => setChosen({ ...chosen, name: event.target.value })}
        />
        <Words
          label="Use"
          words={family.uses}
          value={chosen.use}
          onChange={(use) => setChosen({ ...chosen, use })}
        />
        <Words
          label="Heads"
          words={family.heads}
          value={chosen.heads}
          onChange={(heads) => setChosen({ ...chosen, heads })}
        />
      </div>
      {report ? (
        <AskedFields
          asked={report.asked}
          system={system}
          known={known}
          faults={faults}
          onKnown={onKnown}
        />
      ) : (
        <p className="quiet">Working out what such an engine has…</p>
      )}
      {report ? <FirstCam because={report.because} system={system} /> : null}
      {report?.shop ? <p>{report.shop}</p> : null}
      {(trouble ?? refused) ? (
        <p className="fault" role="alert">
          {trouble ?? refused}
        </p>
      ) : null}
      <div className="dialog-actions">
        <Button
          type="primary"
          disabled={name === '' || !report || !settled}
          title={name === '' ? 'Give it a name first' : ''}
          onClick={() => {
            if (report) void keep(report.document)
          }}
        >
          Begin{name === '' ? '' : ` ${name}`}
        </Button>
        <Button type="text" disabled={name === ''} onClick={() => void begin(name)}>
          Empty instead, nothing assumed
        </Button>
        <span className="quiet">
          Every value is marked assumed until you change it. Nothing here is of any maker.
        </span>
      </div>
    </div>
  )
}

interface FamiliesProps {
  readonly families: readonly FamilyReport[]
  readonly chosen: string
  readonly onChoose: (family: string) => void
}

function Families({ families, chosen, onChoose }: FamiliesProps) {
  return (
    <div className="families" role="radiogroup" aria-label="Kind of engine">
      {families.map(({ family, title, about }) => (
        <label key={family} className={family === chosen ? 'chosen' : ''}>
          <input
            type="radio"
            name="family"
            value={family}
            checked={family === chosen}
            onChange={() => onChoose(family)}
          />
          <b>{title}</b>
          <span className="quiet">{about}</span>
        </label>
      ))}
    </div>
  )
}

interface WordsProps {
  readonly label: string
  readonly words: readonly string[]
  readonly value: string
  readonly onChange: (word: string) => void
}

/** One of a few words, the first of them the likeliest. */
function Words({ label, words, value, onChange }: WordsProps) {
  const shown = words.includes(value) ? value : words[0]
  return (
    <div className="choices" role="radiogroup" aria-label={label}>
      <span className="quiet">{label}</span>
      {words.map((word) => (
        <button
          key={word}
          type="button"
          role="radio"
          aria-checked={word === shown}
          className={word === shown ? 'chosen' : ''}
          onClick={() => onChange(word)}
        >
          {spoken(word)}
        </button>
      ))}
    </div>
  )
}
