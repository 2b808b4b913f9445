import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'

import { Button, Buttons } from './Button'
import { Notice } from './Notice'

type Props = {
  /** What fails alone, as the note calls it. */
  of: string
  /** Where this changes, it is tried again. */
  at?: string
  children: ReactNode
}

/** Keeps a failure in its part of the page: the rest goes on, and what was typed there stays. */
export function Boundary({ of, at, children }: Props) {
  return (
    <ErrorBoundary resetKeys={[at]} fallbackRender={(failed) => <Failed of={of} {...failed} />}
      onError={(error) => { console.error(of, error) }}>
      {children}
    </ErrorBoundary>
  )
}

/** A piece of the application that was to be loaded, and is not there. */
const isMissing = (error: unknown) => error instanceof Error
  && /dynamically imported module|importing a module script|Unable to preload|Failed to fetch/i.test(error.message)

function Failed({ of, error, resetErrorBoundary }: FallbackProps & { of: string }) {
  if (isMissing(error)) return <Missing of={of} />
  return (
    <Notice tone="stop" word={`${of} cannot be shown.`}>
      The rest of the page goes on, and what was typed there stays. <Buttons>
        <Button onPress={resetErrorBoundary}>Try again</Button></Buttons>
    </Notice>
  )
}

const scriptIn = (page: string) => /<script[^>]*src="([^"]+)"/.exec(page)?.[1]

/** Tells whether a newer version is there, or no connection. */
function Missing({ of }: { of: string }) {
  const version = useQuery({
    queryKey: ['version of the application'], gcTime: 0, retry: false, networkMode: 'always',
    queryFn: async () => {
      const page = await (await fetch('/index.html', { cache: 'no-store' })).text()
      return scriptIn(page) === document.querySelector('script[src]')?.getAttribute('src') ? 'same' : 'newer'
    },
  })
  return (
    <Notice tone="attention" word={version.data === 'newer' ? 'A newer version is here.' : `${of} could not be loaded.`}>
      {version.data === 'newer' ? 'What is open comes from the one before; load the page again to go on with the newer one.'
        : version.error ? 'There is no connection, and this device has not shown it before.'
          : 'A piece of the application did not come.'}{' '}
      <Buttons><Button onPress={() => { window.location.reload() }}>Load the page again</Button></Buttons>
    </Notice>
  )
}
