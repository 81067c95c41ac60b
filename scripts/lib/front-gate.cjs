// Loaded into the web application before anything else: turns away requests that its framework would make a fault of
// its own. TRACE shows a request back to whoever can have one sent (RFC 9110, 9.3.8), CONNECT is for proxies, and of
// two Host fields nobody knows which one is meant (RFC 9112, 3.2).
const { Server } = require('node:http')

const turnedAway = new Set(['TRACE', 'TRACK', 'CONNECT'])

/** Status and sentence for a request that goes no further; undefined for all others. */
function faultOf({ method, rawHeaders }) {
  if (turnedAway.has(method)) return [405, `${method} is not taken here.`]
  const hosts = rawHeaders.filter((text, at) => at % 2 === 0 && text.toLowerCase() === 'host')
  return hosts.length > 1 ? [400, 'A request names one host.'] : undefined
}

const { emit } = Server.prototype
Server.prototype.emit = function (event, request, response, ...rest) {
  const fault = event === 'request' && faultOf(request)
  if (!fault) return emit.call(this, event, request, response, ...rest)
  const [status, sentence] = fault
  response.writeHead(status, {
    'content-type': 'text/plain; charset=utf-8',
    connection: 'close',
    ...(status === 405 ? { allow: 'GET, HEAD, POST' } : {}),
  })
  response.end(`${sentence}\n`)
  return true
}
