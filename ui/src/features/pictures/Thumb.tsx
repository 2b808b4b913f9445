import { usePictureAddress } from './usePictureAddress'

/** A picture, small; one that still waits for a connection is shown from this device. */
export function Thumb({ id, alt }: { id: number; alt: string }) {
  return <img src={usePictureAddress(id, 'thumb')} alt={alt} width={96} height={72} />
}
