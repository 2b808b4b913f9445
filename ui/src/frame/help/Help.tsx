import { useState } from 'react'
import { Heading, Modal, Tab, TabList, TabPanel, Tabs } from 'react-aria-components'
import styled from 'styled-components'

import { Button } from '../../kit/Button'
import { Field, Tick } from '../../kit/Field'
import { Overlay, OverlayPanel } from '../../kit/Overlay'
import { useSingleKeys } from '../../kit/shortcuts'
import { color, font, space } from '../../theme'
import { rooms } from '../rooms'
import { glossary } from './glossary'
import { notations } from './notations'

const keys: [string, string][] = [
  ['/', 'say or find: words to look for, a deed or a place by its name, a line of a sheet, a measurement, a note'],
  ...rooms.map(({ key, name }): [string, string] => [`g ${key}`, name]),
  ['o', 'what to open first'],
  ['[  ]', 'previous and next stage; the two keys right of P on any keyboard'],
  ['e', 'edit the record of the machine'],
  ['w', 'why: go to the reckoning'],
  ['u', 'undo what was just done, while it is offered'],
  ['F9', 'take the next reading of a series; foot switches send it'],
  ['?', 'keys, words and notations'],
]

const sheetKeys: [string, string][] = [
  ['Enter', 'new line with the next designator'],
  ['Alt+Enter', 'repeat the line above with the next designator; in an empty sheet, an example'],
  ['Alt+N', 'name the unknown chip of the line'],
  ['Alt+P', 'show the part of the line on a picture of its board'],
  ['Ctrl+S', 'save the sheet'],
  ['↓, Enter', 'take a proposal'],
  ['Tab', 'leave the sheet'],
]

/** The keys of the product, the words of the trade, and how things are written down. */
export function Help({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Overlay isOpen={isOpen} onOpenChange={(open) => { if (!open) onClose() }} isDismissable>
      <Modal>
        <OverlayPanel>
          <Heading slot="title">Help</Heading>
          <Tabs>
            <Row aria-label="Help">
              <Tab id="keys">Keys</Tab><Tab id="words">Words</Tab><Tab id="notations">Notations</Tab>
            </Row>
            <Panel id="keys"><Keys /></Panel>
            <Panel id="words"><Words /></Panel>
            <Panel id="notations"><Notations /></Panel>
          </Tabs>
          <Button slot="close" autoFocus>Close</Button>
        </OverlayPanel>
      </Modal>
    </Overlay>
  )
}

function Keys() {
  const [areOn, setOn] = useSingleKeys()
  return (
    <>
      <Terms entries={keys} />
      <Tick label="Keys of one letter do something, for you on this device" isOn={areOn} onChange={setOn} />
      <h3>In a sheet</h3>
      <Terms entries={sheetKeys} />
    </>
  )
}

function Words() {
  const [words, setWords] = useState('')
  const has = ({ term, means }: { term: string; means: string }) =>
    `${term} ${means}`.toLowerCase().includes(words.trim().toLowerCase())
  const found = glossary.filter(has)
  return (
    <>
      <Field label="A word" type="search" value={words} onChange={setWords} />
      {found.length === 0 ? <p>No such word.</p>
        : <dl>{found.map(({ term, means }) => <div key={term}><dt>{term}</dt><dd>{means}</dd></div>)}</dl>}
    </>
  )
}

function Notations() {
  return notations.map(({ name, example, signs }) => (
    <section key={name}>
      <h3>{name}</h3>
      <pre tabIndex={0} aria-label={`Example: ${name}`}>{example}</pre>
      <Terms entries={signs} />
    </section>
  ))
}

function Terms({ entries }: { entries: [string, string][] }) {
  return (
    <List>
      {entries.map(([key, what]) => (
        <div key={key}>
          <dt><kbd>{key}</kbd></dt>
          <dd>{what}</dd>
        </div>
      ))}
    </List>
  )
}

const Row = styled(TabList)`
  display: flex;
  gap: ${space(2)};
  border-bottom: 1px solid ${color.line};
  [role='tab'] { padding: ${space(1)} 0 6px; border-bottom: 2px solid transparent; cursor: pointer; outline: none; }
  [role='tab'][data-selected] { border-color: ${color.slate}; color: ${color.slate}; font-weight: 600; }
  [role='tab'][data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
const Panel = styled(TabPanel)`
  width: min(780px, 84vw);
  height: min(60vh, 560px); /* the same for all, so that nothing jumps */
  overflow-y: auto;
  padding: ${space(1)} 0;
  outline: none;
  h3 { padding-top: ${space(1)}; font-size: 16px; }
  dl { margin: 0; }
  dl > div { padding: 3px 0; }
  dt { font-weight: 600; }
  dd { margin: 0; }
  pre { margin: 4px 0; padding: ${space(1)}; overflow-x: auto; background: ${color.paper};
    font: 14px/22px ${font.mono}; }
  &[data-focus-visible] { outline: 2px solid ${color.slate}; }
`
const List = styled.dl`
  && > div { display: flex; flex-wrap: wrap; gap: 0 ${space(1)}; padding: 2px 0; }
  dt { min-width: 120px; font-weight: 400; }
  dd { flex: 1 1 240px; }
`
