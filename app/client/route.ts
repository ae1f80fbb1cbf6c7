import type { Typed } from '~~/server/utils/route'
import { api, type Method } from './api'

/** What a route takes and gives, from the server's own file. */
type Io<M> = M extends { default: Typed<infer P, infer Q, infer B, infer R> } ? { p: P; q: Q; b: B; r: R } : never
type Given<K extends string, T> = object extends T ? { [N in K]?: T } : { [N in K]: T }
/** What is read from any text (`z.coerce`, lists) may be left out as far as types can tell. */
type Loose<T> = { [K in keyof T as unknown extends T[K] ? K : never]?: T[K] } & {
  [K in keyof T as unknown extends T[K] ? never : K]: T[K]
}
type Params<P> = unknown extends P ? object : P
/** Parameters of the address by their names, with query and body where the route reads them. */
export type Input<M> = Params<Io<M>['p']> &
  Given<'query', unknown extends Io<M>['q'] ? unknown : Loose<Io<M>['q']>> &
  Given<'body', Io<M>['b']> & { signal?: AbortSignal }
type ReplyOf<M> = Io<M>['r']
/** What a function of the client gives. */
export type Reply<F extends (...given: never[]) => Promise<unknown>> = Awaited<ReturnType<F>>

type Asked = { query?: unknown; body?: unknown; signal?: AbortSignal } & Record<string, unknown>

/**
 * The function that asks one route. Types come from the route's own file, so that a reply and the page that reads it
 * cannot drift apart.
 * @param path the file's place below server/api, with its parameters in brackets
 * @param timeout milliseconds to wait for an answer, where that takes longer than usual
 * @throws ApiProblem
 */
export function route<M>(method: Method, path: string, timeout?: number) {
  type Ask =
    object extends Input<M> ? (input?: Input<M>) => Promise<ReplyOf<M>> : (input: Input<M>) => Promise<ReplyOf<M>>
  const ask = ({ query, body, signal, ...params }: Asked = {}) =>
    api<ReplyOf<M>>(
      path.replace(/\[(\w+)\]/g, (_whole, name: string) => encodeURIComponent(String(params[name]))),
      {
        method,
        ...(query === undefined ? {} : { query: query as Record<string, unknown> }),
        ...(body === undefined ? {} : { body }),
        ...(signal ? { signal } : {}),
        ...(timeout ? { timeout } : {}),
      },
    )
  return ask as unknown as Ask
}
