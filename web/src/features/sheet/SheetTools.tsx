import { Button } from 'antd'

/** What stands above a sheet on screen: the printer, and the way back. */
export function SheetTools({ onClose }: { readonly onClose: () => void }) {
  return (
    <div className="sheet-tools">
      <Button type="primary" onClick={() => window.print()}>
        Print
      </Button>
      <Button onClick={onClose}>Back to the bench</Button>
    </div>
  )
}
