import type { Sentences } from '../../../core/message/message'
import type { reviewMessages } from '../../../core/message/review'
import { prose } from '../../prose'
import { countryName, securityName, shortSecurityName } from '../parts'

export const reviewSentences: Sentences<typeof reviewMessages> = {
  'no-host-this-host': 'sie steht für dieses Gerät selbst (RFC 1122, 3.2.1.3)',
  'no-host-loopback': 'sie ist Loopback, und jede Einheit hat sie für sich (RFC 1122, 3.2.1.3)',
  'no-host-multicast': 'sie ist eine Multicast-Gruppe (RFC 1112)',
  'no-host-later-use': 'sie ist für später reserviert oder Broadcast (RFC 1112)',
  'plain-http': prose`Die Einheiten würden auch über unverschlüsseltes HTTP verwaltet: Das Admin-Passwort ließe sich
    mitlesen.`,
  'mend-https-only': 'Nur HTTPS',
  'syslog-out-of-reach': ({
    syslog,
  }) => prose`Der Syslog-Server ${syslog} liegt außerhalb aller Subnetze des Standorts, und das Management hat kein
    Gateway: Keine Zeile käme an.`,
  'mend-no-syslog': 'Syslog weglassen',
  'image-too-old': ({ model, version, wanted }) =>
    prose`Das Image für ${model} bringt ${version}, und jede Einheit soll mindestens ${wanted} haben.`,
  'ssh-stays-on': prose`SSH bleibt nach dem Besuch an: Wer das Admin-Passwort hat, kann sich von überall im
    Management-Netz anmelden.`,
  'name-twice-on-a-band': ({ ssid }) =>
    prose`„${ssid}“ gibt es zweimal auf demselben Band: Clients könnten sie nicht unterscheiden.`,
  'mend-call-it': ({ other }) => `„${other}“ nennen`,
  'guests-together': ({ ssid }) => `Gäste in „${ssid}“ könnten die Geräte der anderen erreichen.`,
  'mend-keep-guests-apart': 'Voneinander trennen',
  'is-untagged-like-management': 'ist ohne Tag wie das Management',
  'is-on-management-vlan': ({ vlan }) => `liegt im Management-VLAN ${vlan}`,
  'clients-on-management': ({ ssid, where }) =>
    prose`„${ssid}“ ${where}: Seine Clients könnten jede Einheit erreichen.`,
  'mend-use-vlan-of': ({ other, subnet }) => `VLAN ${other} nehmen, ${subnet}`,
  'mend-use-vlan': ({ other }) => `VLAN ${other} nehmen`,
  'vlan-without-subnet': ({ ssid, vlan }) =>
    prose`„${ssid}“ liegt in VLAN ${vlan}, das hier kein Subnetz hat: Jemand anders muss dort Adressen vergeben.`,
  'band-without-radio': ({ ssid, band }) =>
    prose`„${ssid}“ soll auf ${band} GHz laufen, wo die Funkvorgabe keinen Kanal hat.`,
  'mend-leave-band-out': ({ band }) => `${band} GHz weglassen`,
  'mend-use-band': ({ band }) => `${band} GHz an diesem Standort nutzen`,
  'hidden-name': ({
    ssid,
  }) => prose`„${ssid}“ ist versteckt: Jedes Gerät muss den Namen kennen und ruft ihn dann überall. Das hält die Liste
    kurz und niemanden draußen.`,
  'mend-show-name': 'Namen zeigen',
  'clients-let-go': ({
    ssid,
    leastDbm,
  }) => prose`Clients von „${ssid}“ unter ${leastDbm} dBm werden abgewiesen. Wer nirgends besser hinkann, kommt zurück,
    wird wieder abgewiesen und so fort.`,
  'mend-let-nobody-go': 'Niemanden abweisen',
  'steering-without-choice': ({ ssid }) =>
    prose`„${ssid}“ soll Clients zwischen 2,4 und 5 GHz lenken und läuft nicht auf beiden.`,
  'mend-leave-to-client': 'Dem Client überlassen',
  'things-kept-from-2.4': ({ ssid }) =>
    prose`„${ssid}“ besteht auf 5 GHz, und viele Dinge kennen nur 2,4 GHz: Sie kämen nie hinein.`,
  'fast-roaming-for-things': ({
    ssid,
  }) => prose`Schnelles Roaming (802.11r) ist für „${ssid}“ an: Alte Scanner und Sensoren verweigern manchmal ein Netz,
    das es anbietet.`,
  'mend-no-fast-roaming': 'Ausschalten',
  'fast-roaming-without-key': ({
    ssid,
  }) => prose`Schnelles Roaming (802.11r) ist für „${ssid}“ an, das keinen Schlüssel hat, den ein Access Point dem
    nächsten geben könnte.`,
  'low-rates-for-things': ({
    ssid,
  }) => prose`Niedrige Datenraten entfallen, und „${ssid}“ ist für Dinge auf 2,4 GHz: Ein fernes fällt womöglich heraus,
    eines mit 802.11b kommt nie hinein.`,
  'mend-keep-low-rates': 'Niedrige Raten behalten',
  'hours-are-none': ({ ssid, from }) => `„${ssid}“ geht zur selben Zeit an und aus, ${from}: Es wäre nie da.`,
  'mend-always-on-air': 'Immer auf Sendung lassen',
  'allow-list-empty': ({ ssid }) =>
    prose`„${ssid}“ lässt nur die MACs seiner Liste hinein, und die Liste ist leer: Niemand käme hinein.`,
  'mend-let-everybody-in': 'Alle hineinlassen',
  'rates-cross': ({
    ssid,
    perClientKbps,
    sharedKbps,
  }) => prose`Ein Client von „${ssid}“ darf ${perClientKbps} kbit/s nehmen, mehr als die ${sharedKbps}, die sich alle
    teilen.`,
  'mend-client-rate': ({ rate }) => `Einem Client ${rate} geben`,
  'too-many-networks': ({
    count,
    model,
    most,
  }) => prose`Der Auftrag hat ${count} Netze; ${model} trägt ${most}. Legen Sie einige zusammen oder nehmen Sie ein
    anderes Modell.`,
  'no-host-address': ({ what, address, why }) => `${what} ${address} kann nicht sein: ${why}.`,
  'server-out-of-reach': ({
    what,
    address,
  }) => prose`${what} ${address} liegt außerhalb aller Subnetze des Standorts, und das Management hat kein Gateway:
    Keine Einheit würde ihn erreichen.`,
  'of-the-subnet': 'Das Subnetz',
  'of-the-gateway': 'Das Gateway',
  'of-dhcp-pool-end': 'Ein Ende des DHCP-Bereichs',
  'of-static-range-end': 'Ein Ende des statischen Bereichs',
  'of-reserved-address': 'Die reservierte Adresse',
  'of-dns-server': 'Der DNS-Server',
  'of-time-server': 'Der Zeitserver',
  'of-radius-server': 'Der RADIUS-Server',
  'of-accounting-server': 'Der RADIUS-Accounting-Server',
  'of-syslog-server': 'Der Syslog-Server',
  'country-without-rules': ({ country }) =>
    prose`Für ${country} gibt es keine Funkregeln. Wählen Sie das Land aus der Liste.`,
  'mend-use-width': ({ width }) => `${width} MHz nehmen`,
  'wide-at-24': ({
    width,
  }) => prose`${width} MHz auf 2,4 GHz nehmen zwei der drei Kanäle: Einheiten und Nachbarn teilen sich dann den Rest.
    Üblich sind 20 MHz.`,
  'open-network': ({ ssid }) =>
    prose`„${ssid}“ ist offen, wie von Ihnen bestätigt: Jeder in der Nähe kann lesen, was seine Clients senden.`,
  'open-network-unconfirmed': ({
    ssid,
  }) => prose`„${ssid}“ wäre offen: Jeder in der Nähe könnte lesen, was seine Clients senden. Es geht erst auf Sendung,
    wenn sein Name ein zweites Mal eingegeben ist.`,
  'mend-use-wpa2': 'WPA2-Personal nehmen',
  'enterprise-without-server': ({ ssid }) =>
    prose`„${ssid}“ fragt einen RADIUS-Server, wer hineindarf, und keiner ist genannt.`,
  'frames-do-not-fit': ({
    ssid,
    security,
    fitting,
    asked,
  }) => prose`„${ssid}“ ist ${securityName(security)}; dazu gehören geschützte Management-Frames „${fitting}“, nicht
    „${asked}“.`,
  'mend-frames-by-security': 'Wie die Sicherheit es will',
  'wpa3-for-things': ({ ssid }) =>
    prose`„${ssid}“ ist nur WPA3: Alte Scanner und Sensoren kennen höchstens WPA2 und kämen nicht hinein.`,
  'mend-use-wpa3-mixed': 'WPA3/WPA2 gemischt nehmen',
  'security-not-carried': ({ ssid, security, models }) =>
    prose`„${ssid}“ ist ${securityName(security)}, was ${models.join(', ')} nicht kann.`,
  'mend-use-security': ({ security }) => `${shortSecurityName(security)} nehmen`,
  'mend-make-strong': 'Eine starke erzeugen',
  'gateway-outside': ({ gateway, subnet }) =>
    prose`Das Gateway ${gateway} liegt außerhalb von ${subnet}: Niemand dort könnte es erreichen.`,
  'mend-use-address': ({ address }) => `${address} nehmen`,
  'of-the-dhcp-pool': 'DHCP-Bereich',
  'of-the-static-range': 'statische Bereich',
  'static-range-in-pool': ({
    first,
    last,
  }) => prose`Der statische Bereich ${first} bis ${last} trifft den DHCP-Bereich: Zwei Einheiten könnten eine Adresse
    bekommen.`,
  'mend-use-outside-pool': 'Nehmen, was der DHCP-Bereich frei lässt',
  'reserved-outside': ({ address, subnet }) => `Die reservierte Adresse ${address} liegt außerhalb von ${subnet}.`,
  'mend-take-address-off': 'Streichen',
  'of-dns-server-there': 'die ein DNS-Server hat',
  'of-brief-server-there': 'die ein Server des Auftrags hat',
  'of-something-else-there': 'die für etwas anderes reserviert ist',
  'gateway-in-pool': ({ subnet, address }) =>
    prose`Der DHCP-Bereich von ${subnet} würde die Adresse des Gateways ausgeben, ${address}.`,
  'kept-address-in-pool': ({ subnet, address, owner }) =>
    prose`Der DHCP-Bereich von ${subnet} würde ${address} ausgeben, ${owner}.`,
  'mend-use-range': ({ first, last }) => `${first} bis ${last} nehmen`,
  'mend-no-pool': 'Keinen Bereich haben',
  'range-backwards': ({ range, first, last }) => `Der ${range} beginnt bei ${first}, über seinem Ende ${last}.`,
  'mend-swap-ends': 'Beide tauschen',
  'range-outside': ({ address, range, subnet }) => `${address} liegt außerhalb von ${subnet} (${range}).`,
  'mend-move-subnet': ({ subnet }) => `Nach ${subnet} verlegen`,
  'subnets-overlap': ({ name, subnet, otherName, otherSubnet }) =>
    prose`${name} ${subnet} überschneidet sich mit ${otherName} ${otherSubnet}: Niemand wüsste, wo eine Adresse liegt.`,
  'are-both-untagged': 'beide ohne Tag',
  'are-both-on-vlan': ({ vlan }) => `beide in VLAN ${vlan}`,
  'vlan-twice': ({ name, other, where }) => `${name} und ${other} sind ${where}: Sie wären ein Netz.`,
  'factory-address-in-subnet': ({
    model,
    address,
    subnet,
  }) => prose`${model} hat ab Werk ${address}, innerhalb von ${subnet}: Keine Einheit bekommt diese Adresse, und nichts
    anderes am Standort darf sie haben.`,
  'mend-keep-subnets-apart': 'Getrennt halten',
  'talk-to-nobody': 'Eine Regel, wer wen erreichen darf, nennt ein Subnetz, das es nicht mehr gibt.',
  'mend-take-rule-off': 'Regel streichen',
  'passphrase-is-its-name': ({ ssid }) =>
    prose`Die Passphrase von „${ssid}“ ist sein eigener Name: Den probiert jeder zuerst.`,
  'passphrase-guessable': ({
    ssid,
    bits,
  }) => prose`Die Passphrase von „${ssid}“ ist zu erraten: etwa ${bits} Bit, verlangt sind 40. Sie besteht aus Wörtern
    oder Mustern, die zuerst probiert werden.`,
  'width-not-legal': ({ country, width, band }) =>
    prose`${countryName(country)} erlaubt einem Access Point auf ${band} GHz keinen Kanal von ${width} MHz.`,
  'width-not-legal-outdoors': ({ country, width, band }) =>
    prose`${countryName(country)} erlaubt im Freien auf ${band} GHz keinen Kanal von ${width} MHz.`,
  '6-ghz-without-wpa3': ({ ssid, security }) =>
    prose`„${ssid}“ soll auf 6 GHz mit ${securityName(security)} laufen; auf 6 GHz sind nur WPA3 und OWE erlaubt.`,
  '6-ghz-without-wpa3-roaming': ({
    ssid,
    security,
  }) => prose`„${ssid}“ soll auf 6 GHz mit ${securityName(security)} laufen; auf 6 GHz sind nur WPA3 und OWE erlaubt.
    Zwischen zwei Netzen eines Namens wechseln Clients nur, wo beide dieselbe Passphrase haben.`,
  'mend-6-ghz-network': ({ security }) => `6 GHz ein Netz dieses Namens mit ${shortSecurityName(security)} geben`,
  'guests-reach-management': ({ from, to, ssid }) =>
    prose`${from} darf ${to} erreichen: Gäste in „${ssid}“ könnten die Anmeldung jeder Einheit öffnen.`,
  'things-reach-management': ({ from, to, ssid }) =>
    prose`${from} darf ${to} erreichen: Dinge in „${ssid}“ könnten die Anmeldung jeder Einheit öffnen.`,
  'set-by-hand': ({
    name,
    hands,
    models,
  }) => prose`${name === '' ? '' : `„${name}“: `}${hands.replace(/\.$/, '')} von Hand auf ${models.join(', ')}; ein
    Durchlauf kann es nicht.`,
  'not-typed-out': ({ told }) => told,
}
