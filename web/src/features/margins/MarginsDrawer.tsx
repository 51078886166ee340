import { Button, Drawer } from 'antd'
import { useState } from 'react'
import { useCandidate } from '../../model/useSession'
import { Margins } from './Margins'
import { marginsOf, tallyOf } from './order'

/** Margins on a narrow screen: their count always in sight, the list on request. */
export function MarginsDrawer({ step, onGoTo }: { step: string; onGoTo: (field: string) => void }) {
  const [open, setOpen] = useState(false)
  const limits = useCandidate()?.limits ?? []
  return (
    <>
      <Button className="margins-button" aria-expanded={open} onClick={() => setOpen(true)}>
        Margins: {tallyOf(marginsOf(limits))}
      </Button>
      <Drawer
        open={open}
        onClose={() => setOpen(false)}
        placement="right"
        size={320}
        title="Margins"
        destroyOnHidden
      >
        <Margins
          step={step}
          onGoTo={(field) => {
            setOpen(false)
            onGoTo(field)
          }}
        />
      </Drawer>
    </>
  )
}
