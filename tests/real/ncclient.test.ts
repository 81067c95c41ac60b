/** Debian's python3-ncclient, a NETCONF client that nobody here wrote, against the stand-in of a controller. */
import { spawn } from 'node:child_process'
import { afterEach, expect, it } from 'vitest'
import { Lab } from '../../src/lab/lab'
import { regulatory } from '../support/data'

const mac = '02:7a:c1:00:00:01'
const script = `
import sys
from ncclient import manager
from ncclient.operations import RPCError
port = int(sys.argv[1])
ns = "urn:ietf:params:xml:ns:yang:ietf-system"
with manager.connect(host="127.0.0.1", port=port, username="chief", password="chief",
                     hostkey_verify=False, allow_agent=False, look_for_keys=False) as unit:
    assert ":candidate" in unit.server_capabilities and ":confirmed-commit" in unit.server_capabilities
    running = unit.get_config("running", filter=("subtree", '<system xmlns="%s"/>' % ns)).data_xml
    assert "<hostname>c1-0001</hostname>" in running.replace(' xmlns="%s"' % ns, "")
    with unit.locked("candidate"):
        config = ('<config><system xmlns="%s"><hostname>rack-%s</hostname>'
                  '<location>caf\\u00e9 &amp; pier</location></system></config>')
        unit.edit_config(target="candidate", config=config % (ns, "one"), test_option="test-then-set")
        unit.validate("candidate")
        unit.commit(confirmed=True, timeout="600", persist="a word")
        unit.commit(persist_id="a word")
    assert "rack-one" in unit.get_config("running").data_xml
    try:
        unit.edit_config(target="candidate", config='<config><nowhere xmlns="urn:no"/></config>')
        sys.exit("it took what it does not know")
    except RPCError as error:
        print("refused:", error.message)
    unit.copy_config(source="running", target="startup")
    assert "rack-one" in unit.get_config("startup").data_xml
    interface = ('<interfaces xmlns="urn:ietf:params:xml:ns:yang:ietf-interfaces">'
                 '<interface><name>mgmt0</name></interface></interfaces>')
    print("phys:", "02:7a:c1:00:00:01" in unit.get(filter=("subtree", interface)).data_xml)
print("done")
`

let lab: Lab
afterEach(() => lab.close())

it('reads, locks, writes, commits until it is confirmed, copies, and is told why it is refused', async () => {
  lab = await Lab.open({ pace: 1000, regulatory, shelf: [{ model: 'Tarnhelm C1', mac, serial: 'C1-1' }] })
  lab.plugInAll()
  const { unit, front } = lab.plugged(mac)
  await expect.poll(() => unit.serviceIsUp).toBe(true)
  const port = String(front.loopbackPort(830))
  const { status, stdout, stderr } = await new Promise<ReturnType<typeof result>>((resolve) => {
    const child = spawn('/usr/bin/python3', ['-c', script, port])
    const told = { stdout: '', stderr: '' }
    child.stdout.on('data', (data: Buffer) => (told.stdout += data.toString()))
    child.stderr.on('data', (data: Buffer) => (told.stderr += data.toString()))
    child.once('exit', (code) => resolve(result(code, told)))
  })
  expect(stderr).toBe('')
  expect(stdout).toBe('refused: nowhere is not known here\nphys: True\ndone\n')
  expect(status).toBe(0)
  expect(unit.effective).toMatchObject({ name: 'rack-one', location: 'café & pier' })
  expect(unit.changes.saved).toBe(true)
})

const result = (status: number | null, told: { stdout: string; stderr: string }) => ({ status, ...told })
