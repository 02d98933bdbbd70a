import createClient, { type Middleware } from 'openapi-fetch'
import type { paths } from './schema'

const cookie = (name: string) =>
  document.cookie
    .split('; ')
    .find((c) => c.startsWith(`${name}=`))
    ?.split('=')[1]

// read anew for each request: signing in changes the token
const csrf: Middleware = {
  onRequest({ request }) {
    if (!['GET', 'HEAD'].includes(request.method)) request.headers.set('X-CSRFToken', cookie('csrftoken') ?? '')
    return request
  },
}

// fetch is looked up at each call, so that a test can stand in for the network
export const client = createClient<paths>({ baseUrl: location.origin, credentials: 'same-origin', fetch: (request) => fetch(request) })
client.use(csrf)
