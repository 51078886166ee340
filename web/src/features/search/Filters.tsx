import { InputNumber, Select } from 'antd'
import type { SearchReport } from '../../api/client'
import type { Filter, PointFigure } from './figures'

interface FiltersProps {
  readonly report: SearchReport
  readonly figures: readonly PointFigure[]
  readonly filter: Filter
  readonly onFilter: (filter: Filter) => void
  readonly count: number
}

/** What candidates of the cloud must have to be shown. */
export function Filters({ report, figures, filter, onFilter, count }: FiltersProps) {
  const figure = figures.find(({ id }) => id === filter.figure)
  const end = (key: 'from' | 'to', label: string) => (
    <InputNumber
      size="small"
      aria-label={`${label}, ${figure?.title ?? ''}`}
      placeholder={key}
      value={filter[key] ?? null}
      onChange={(value) => {
        onFilter({ ...filter, [key]: typeof value === 'number' ? value : undefined })
      }}
    />
  )
  const limit = filter.limit === undefined ? undefined : report.limits[filter.limit]
  return (
    <div className="search-asks">
      <Select
        size="small"
        allowClear
        showSearch={{ optionFilterProp: 'label' }}
        aria-label="Only with room in"
        placeholder="only with room in…"
        popupMatchSelectWidth={false}
        value={filter.limit}
        options={report.limits.map(({ title, unit }, i) => ({
          value: i,
          label: `${title}, ${unit}`,
        }))}
        onChange={(place: number | undefined) => {
          onFilter({ ...filter, limit: place, least: place === undefined ? undefined : 0 })
        }}
      />
      {limit ? (
        <InputNumber
          size="small"
          aria-label={`At least so much left, ${limit.unit}`}
          value={filter.least ?? 0}
          suffix={limit.unit}
          onChange={(least) => {
            onFilter({ ...filter, least: typeof least === 'number' ? least : 0 })
          }}
        />
      ) : null}
      <Select
        size="small"
        allowClear
        aria-label="Only with a figure"
        placeholder="only with…"
        popupMatchSelectWidth={false}
        value={filter.figure}
        options={figures.map(({ id, title }) => ({ value: id, label: title }))}
        onChange={(id: string | undefined) => {
          onFilter({ ...filter, figure: id, from: undefined, to: undefined })
        }}
      />
      {figure ? (
        <>
          {end('from', 'At least')} {end('to', 'At most')}
        </>
      ) : null}
      <span className="quiet">{count} candidates</span>
    </div>
  )
}
