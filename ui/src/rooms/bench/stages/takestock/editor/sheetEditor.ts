import { lazyPage } from '../../../../../kit/lazyPage'

/** The editor is the heaviest piece; the page may stand before it arrives. */
export const sheetEditor = lazyPage(() => import('./SheetEditor').then((module) => module.default))
