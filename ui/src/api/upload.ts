import { unreached } from '../data/connection'
import { accountHeader, accountNow, leaveHere, type Schemas, sessionEnded } from './client'
import { ProblemError } from './problem'
import { answered, keyFor, requestKeyHeader } from './requestKey'

/** Sends one file, and tells how much of it has gone, from 0 to 1. Only XMLHttpRequest can tell that. */
export function upload<Answer>(address: string, file: File, onProgress: (part: number) => void = () =>
  undefined): Promise<Answer> {
  if (file.size === 0) {
    return Promise.reject(new ProblemError(422, { title: 'Not acceptable as it is', status: 422,
      detail: 'The file is empty; nothing of it would be kept.' }))
  }
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('POST', address)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    const fingerprint = `POST ${address} ${file.name} ${file.size} ${file.lastModified}`
    const key = keyFor(fingerprint)
    request.setRequestHeader(requestKeyHeader, key)
    request.responseType = 'json'
    request.upload.onprogress = ({ loaded, total }) => { onProgress(total ? loaded / total : 0) }
    const account = accountNow()
    if (account) request.setRequestHeader(accountHeader, String(account))
    request.onerror = () => {
      unreached()
      void leaveHere({ method: 'POST', address, body: file, type: 'application/octet-stream', key }).then(reject)
    }
    request.onload = () => {
      if (request.status < 500) answered(fingerprint)
      if (request.status === 201) resolve(request.response as Answer)
      else {
        if (request.status === 401) sessionEnded()
        reject(new ProblemError(request.status, (request.response ?? undefined) as Schemas['Problem'] | undefined))
      }
    }
    request.send(file)
  })
}
