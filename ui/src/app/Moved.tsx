import { Navigate, useLocation } from 'react-router'

/** An address of before: the collection was called the shelves. */
export function Moved() {
  const { pathname, search, hash } = useLocation()
  return <Navigate to={pathname.replace(/^\/shelves/, '/collection') + search + hash} replace />
}
