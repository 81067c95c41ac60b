/** Addresses in the forms of other programs. */

import { jobOf } from '../../../../../../actions/with-job'
import {
  dnsmasqConfig,
  type ExportInput,
  hostsFile,
  interfaceNameRule,
  keaConfig,
} from '../../../../../../core/addressing/exports'
import { vendorOf } from '../../../../../../core/addressing/vendor-option'
import { withBareCards } from '../../../../../../core/kit/bare-card'
import { viewJob } from '../../../../../../jobs/job-view'
import { kitCardsOf } from '../../../../../../jobs/kit'

export const dynamic = 'force-dynamic'

const forms: Readonly<
  Record<
    string,
    { file: string; type: string; write: (input: ExportInput, interfaceName: string | undefined) => string }
  >
> = {
  kea: { file: 'kea-dhcp4.json', type: 'application/json', write: keaConfig },
  dnsmasq: { file: 'dnsmasq.conf', type: 'text/plain; charset=utf-8', write: dnsmasqConfig },
  hosts: { file: 'hosts.txt', type: 'text/plain; charset=utf-8', write: hostsFile },
}

export async function GET(
  request: Request,
  { params }: { params: Promise<{ job: string; form: string }> },
): Promise<Response> {
  const { job: slug, form } = await params
  const found = await jobOf(slug)
  const chosen = Object.hasOwn(forms, form) ? forms[form] : undefined
  const view = found && (await viewJob(found.store, found.job.slug))
  if (!found || !chosen || !view) return new Response('There is no such list.', { status: 404 })
  // Without one the server would serve nobody until somebody writes it in.
  const interfaceName = new URL(request.url).searchParams.get('interface') || undefined
  if (interfaceName !== undefined && !interfaceNameRule.test(interfaceName))
    return new Response('Name the interface that the server is to serve on, such as eth0.', { status: 400 })
  const cards = withBareCards(await kitCardsOf(found.store), view.units)
  const addressed = view.units.flatMap((unit) => {
    const address = view.plans.get(unit.id)?.address
    const card = cards.get(unit.model)
    return address && card ? [{ name: unit.name, mac: unit.mac, address, role: card.role, vendor: vendorOf(card) }] : []
  })
  const text = chosen.write(
    {
      brief: view.job.brief,
      units: addressed,
      controllers: addressed.filter((unit) => unit.role === 'controller'),
    },
    interfaceName,
  )
  return new Response(text, {
    headers: {
      'content-type': chosen.type,
      'content-disposition': `attachment; filename="${slug}-${chosen.file}"`,
      'cache-control': 'no-store',
    },
  })
}
