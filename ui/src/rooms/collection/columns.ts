import type { Column } from '../../kit/Columns'
import type { Sort } from './machineFilters'

export type MachineColumn = Column<Sort> & { width: string; isFigure?: boolean }

/** The columns of the list of machines. */
export const machineColumns: MachineColumn[] = [
  { key: 'accession', title: 'Accession', width: '104px', isFixed: true },
  { key: 'name', title: 'Machine', width: '20%', isFixed: true },
  { key: 'maker', title: 'Maker and model', width: '26%' },
  { key: 'place', title: 'Place', width: '20%' },
  { key: 'year', title: 'From year', width: '84px', isFigure: true },
  { key: 'chips', title: 'Chips', width: '60px', isFigure: true },
  { key: 'unidentified', title: 'Unknown', width: '80px', isFigure: true },
  { key: 'ram', title: 'RAM, KB', width: '82px', isFigure: true },
  { key: 'rom', title: 'ROM, KB', width: '82px', isFigure: true },
]
