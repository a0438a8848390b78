/** Until accounts exist, Suvok speaks to this machine alone. */
export const loopbackHosts = ['127.0.0.1', 'localhost', '::1', '[::1]'];

type Headers = Record<string, string | string[] | undefined>;

function hostOf(authority: string): string {
  return authority.replace(/:\d+$/, '').toLowerCase();
}

/** True for a request that names this machine as its host; another name means that a web page elsewhere sent it here. */
export function isOwnHost(headers: Headers): boolean {
  return typeof headers.host === 'string' && loopbackHosts.includes(hostOf(headers.host));
}

/** True for a request from a page of this server, or from no page at all. */
export function isOwnOrigin(headers: Headers): boolean {
  if (!isOwnHost(headers)) return false;
  const { origin } = headers;
  if (origin === undefined) return true;
  return typeof origin === 'string' && origin.replace(/^https?:\/\//, '') === headers.host;
}
