import { theHomeNetwork } from '../server/devices/homeNetwork';
import { content, endpoint } from '../server/http/endpoint';
import { notFound } from '../server/http/problem';

/** The certificate that a device has to trust, so that it warns no more. */
export const GET = endpoint(async () => {
  const certificate = theHomeNetwork()?.authorityCertificate();
  if (!certificate) throw notFound('authority, because the home network was never switched on,');
  return content(certificate, 'application/x-x509-ca-cert', 'oculent-authority.crt');
});
