import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { facetsQuery } from '../../api/machines'
import { messageOf } from '../../api/problem'
import { findingsByYearQuery, looksAheadQuery, unknownCountsQuery } from '../../api/start'
import { type BarRow, BarRows, type Stretch } from '../../kit/BarRows'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { Skeleton } from '../../kit/Skeleton'
import { space } from '../../theme'

/** Plots that answer what one asks of the whole: how it stands, what comes, how old it is, where it is. */
export function Plots() {
  return (
    <Column>
      <WorkAhead />
      <OverTheYears />
      <NotKnown />
      <Parts />
    </Column>
  )
}

const one = (of: string, count: number, tone: Stretch['tone'] = 'slate'): Stretch[] => [{ of, count, tone }]

function WorkAhead() {
  const { data, error } = useQuery(looksAheadQuery)
  const rows = data && [
    { key: 'overdue', name: <Link to="/diary/open-first">overdue</Link>, stretches: one('overdue', data.overdue, 'amber') },
    ...data.months.map(({ month, looks }) => ({ key: month, name: month, stretches: one('looks', looks) })),
  ]
  return <Plot title="Looks that fall due" faint="by month" rows={rows} error={error} head={['Month', 'looks']} lines={13} />
}

function OverTheYears() {
  const { data, error } = useQuery(findingsByYearQuery)
  const rows = data?.map(({ year, hazard, repair, watch, cosmetic, machines }) => ({
    key: String(year), name: <>{year} <Faint>{machines} surveyed</Faint></>,
    stretches: [...one('hazard', hazard, 'rust'), ...one('repair', repair, 'amber'), ...one('watch', watch, 'slate'),
      ...one('cosmetic', cosmetic, 'edge')],
    total: <span title="hazard, repair, watch, cosmetic">{[hazard, repair, watch, cosmetic].join(' · ')}</span>,
  }))
  return <Plot title="Condition over the years" faint="findings open at the end of each" rows={rows} error={error}
    head={['Year', 'hazard · repair · watch · cosmetic']} lines={6} />
}

function NotKnown() {
  const { data, error } = useQuery(unknownCountsQuery)
  const rows = data?.map(({ sort, count, more }) => ({ key: sort, name: <Link to="/library/unknowns">{sort}</Link>,
    stretches: one(sort, count), total: more ? `${String(count)} and more` : undefined }))
  return <Plot title="Not known yet" faint="by kind" rows={rows} error={error} head={['Kind', 'things']} lines={7} />
}

function Parts() {
  const { data, error } = useQuery(facetsQuery({}))
  const years = data?.years.map(({ value, count }) => ({ key: value,
    name: value ? <Link to={`/collection?year=${value}`}>{value}</Link> : 'not told', stretches: one(value, count) }))
  const places = data?.places.map(({ value, count }) => ({ key: value,
    name: value ? <Link to={`/collection?place=${encodeURIComponent(value)}`} title={value}>{value}</Link> : 'no place',
    stretches: one(value, count) }))
  return (
    <>
      <Plot title="Machines by year" faint="the first year of their parts" rows={years} error={error}
        head={['Year', 'machines']} lines={10} />
      <Plot title="Machines by place" rows={places} error={null} head={['Place', 'machines']} lines={10} />
    </>
  )
}

function Plot({ title, faint, rows, error, head, lines }: { title: string; faint?: ReactNode; rows: BarRow[] | undefined
  error: Error | null; head: [string, string]; lines: number }) {
  return (
    <Part title={title} faint={faint}>
      {error ? <Notice tone="stop" word="Not counted.">{messageOf(error)}</Notice>
        : !rows ? <Skeleton what={title} lines={lines} tall={16} />
          : rows.length === 0 ? <p>Nothing yet.</p> : <BarRows label={title} head={head} rows={rows} />}
    </Part>
  )
}

const Column = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(3)};
`
