import { useQuery } from '@tanstack/react-query'
import { Fragment } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'

import { occurrencesQuery } from '../../api/library'
import { messageOf } from '../../api/problem'
import { Figure, Scroll, StackedTable, Whole } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Skeleton } from '../../kit/Skeleton'
import { spotAddress } from '../../kit/spot'
import { GapRow, useVirtualRows } from '../../kit/VirtualRows'

/** More lines than these are not listed at once. */
const most = 5000

/** Every line of a sheet on which a type stands; each leads to its line. */
export default function Occurrences() {
  const number = useSearchParams()[0].get('number') ?? ''
  const found = useQuery({ ...occurrencesQuery(number), enabled: number !== '' })
  const lines = found.data ?? []
  const { box, drawn, gapBefore, gapAfter, measure } = useVirtualRows(lines.length, 37)
  const parts = lines.reduce((sum, { count }) => sum + count, 0)
  return (
    <Page>
      <PageHead>
        <Title named={`Occurrences of ${number}`}>Occurrences of <code>{number}</code></Title>
        <Faint>{lines.length > 0 && `${String(parts)} parts on ${String(lines.length)} lines`}
          {lines.length >= most && '; the first ones, there are more'}</Faint>
        <Link to={`/library?${new URLSearchParams({ start: number, type: number }).toString()}`}>The type</Link>
      </PageHead>
      {found.error && <Notice tone="stop" word="Not listed.">{messageOf(found.error)}</Notice>}
      {found.isPending && number !== '' && <Skeleton what="The list" lines={12} />}
      {(found.data?.length === 0 || number === '') && <p>It stands on no sheet.</p>}
      {lines.length > 0 && (
        <Scroll>
          <StackedTable aria-rowcount={lines.length + 1}>
            <thead><tr aria-rowindex={1}>
              <th>Machine</th><th>Where</th><Figure as="th">Parts</Figure><th>Marking</th>
            </tr></thead>
            <tbody ref={box}>
              {drawn.map((index) => {
                const line = lines[index]
                const to = line && spotAddress(line.machineId, { assembly: line.assemblyId, line: line.line })
                return line && to && <Fragment key={`${String(line.assemblyId)} ${String(line.line)}`}>
                  <GapRow height={gapBefore(index)} columns={4} />
                  <tr ref={measure} data-index={index} aria-rowindex={index + 2}>
                    <td>{line.machineId ? <><Number>{line.accession}</Number> {line.machine}</> : 'in no machine'}</td>
                    <td><Link to={to}>{line.assembly}, line {line.line}</Link></td>
                    <Figure>{line.count}</Figure>
                    <Whole><code>{line.marking}</code></Whole>
                  </tr>
                </Fragment>
              })}
              <GapRow height={gapAfter} columns={4} />
            </tbody>
          </StackedTable>
        </Scroll>
      )}
    </Page>
  )
}

const Number = styled.span`
  white-space: nowrap;
`
