import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'

import { messageOf } from '../../../api/problem'
import { romListQuery, useMergeRoms } from '../../../api/roms'
import { useAccount } from '../../../api/session'
import { Button, Buttons } from '../../../kit/Button'
import { Tick } from '../../../kit/Field'
import { ListHead } from '../../../kit/ListHead'
import { Figure, ListTable, Scroll } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page } from '../../../kit/Page'
import { useFilters } from '../../../kit/useFilters'
import { romName } from './romName'
import { RomSets } from './RomSets'

/** The contents of read-only memories that were met, named ones first. */
export default function RomList() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('search') ?? ''
  const roms = useQuery(romListQuery(words))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const navigate = useNavigate()
  const [chosen, setChosen] = useState<string[]>([])
  const merge = useMergeRoms()
  const [one, two] = chosen
  return (
    <Page>
      <ListHead title="ROM images" label="Filter by name, version or the start of a sum" words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}) }} />
      <p><Faint>A content is known by its sums; name it once, and it is recognised on every
        machine. <Link to="/library">Back to the library</Link></Faint></p>
      {chosen.length > 0 && (
        <Buttons>
          <span>{chosen.length} chosen, in this order</span>
          <Button $small isDisabled={chosen.length !== 2} onPress={() =>
            void navigate(`/library/roms/${one ?? ''}?against=${two ?? ''}`)}>Compare the two</Button>
          {mayWrite && (
            <Button $small isDisabled={chosen.length < 2 || chosen.length > 8} isPending={merge.isPending}
              onPress={() => { merge.mutate(chosen, { onSuccess: ({ sha256 }) =>
                void navigate(`/library/roms/${sha256}`) }) }}>
              Put them together as lanes
            </Button>
          )}
          <Button $small onPress={() => { setChosen([]) }}>Choose none</Button>
        </Buttons>
      )}
      {merge.error && <Notice tone="stop" word="Not put together.">{messageOf(merge.error)}</Notice>}
      {roms.error && <Notice tone="stop" word="Not listed.">{messageOf(roms.error)}</Notice>}
      {roms.data && roms.data.images.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th><span className="only-read">Choose</span></th><th>Name</th><Figure as="th">Bytes</Figure>
              <th>CRC-32</th><th>SHA-256</th><Figure as="th">Sockets</Figure><th>For</th></tr></thead>
            <tbody>
              {roms.data.images.map((image) => (
                <tr key={image.sha256}>
                  <td>
                    <Tick
                      label={<span className="only-read">Choose {romName(image)}, {image.crc32}</span>}
                      isOn={chosen.includes(image.sha256)}
                      onChange={(isOn) => { setChosen(isOn ? [...chosen, image.sha256] : chosen.filter((sum) =>
                        sum !== image.sha256)) }}
                    />
                  </td>
                  <td><Link to={`/library/roms/${image.sha256}`}>{romName(image)}</Link>
                    {image.madeFrom && <Faint> {image.madeFrom}</Faint>}</td>
                  <Figure>{image.bytes.toLocaleString('en')}</Figure>
                  <Figure $text>{image.crc32}</Figure>
                  <Figure $text>{image.sha256.slice(0, 16)}</Figure>
                  <Figure>{image.sockets}</Figure>
                  <td>{image.public ? 'everybody' : 'staff'}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      <RomSets />
      {roms.data?.more && <p>There are more; narrow them by words.</p>}
      {roms.data?.images.length === 0 && <p>
        {words ? 'No image has all of these words.'
          : 'Nothing was read yet. Read a chip out in the stage Identify of a machine.'}
      </p>}
    </Page>
  )
}
