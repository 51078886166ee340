import { Segmented } from 'antd'
import { useState } from 'react'
import { CrownPlan } from './CrownPlan'
import { GapAtSpeed } from './GapAtSpeed'
import { GapsAtRest } from './GapsAtRest'
import { PhasingWindow } from './PhasingWindow'
import { Tolerances } from './Tolerances'
import './clearance.css'

type View = 'rest' | 'speed' | 'tolerances' | 'phasing'

const VIEWS: { value: View; label: string }[] = [
  { value: 'rest', label: 'At rest' },
  { value: 'speed', label: 'At speed' },
  { value: 'tolerances', label: 'How likely' },
  { value: 'phasing', label: 'Phasing window' },
]

/** Everything that must not touch: at rest, at speed, with what things are off by, and with the cam turned. */
export function ClearanceStep() {
  const [view, setView] = useState<View>('rest')
  return (
    <>
      <Segmented
        className="clearance-views"
        aria-label="How near is looked at"
        options={VIEWS}
        value={view}
        onChange={setView}
      />
      {view === 'rest' ? (
        <div className="clearance-rest">
          <div>
            <GapsAtRest />
          </div>
          <CrownPlan />
        </div>
      ) : null}
      {view === 'speed' ? <GapAtSpeed /> : null}
      {view === 'tolerances' ? <Tolerances /> : null}
      {view === 'phasing' ? <PhasingWindow /> : null}
    </>
  )
}
