/**
 * The page of a Hearth: one address, drawn by script, with routes after `#`. It is as bad as such pages come: no
 * element has an id or a name that stays, drop-downs are of its own making, networks are edited in dialogs.
 *
 * Runs in a browser, from its own text: nothing outside the function is there.
 */
import type { hearthMore } from './more-pages'
import type { hearthUnits } from './units-page'
import type { HearthRadio, HearthView, Net } from './view'
import type { HearthWords } from './words'

/**
 * @param isNew      nobody has made its admin yet
 * @param unitsPage  draws the units that have found it
 * @param morePages  draws pages that no setting stands on
 */
export function hearthPage(
  words: HearthWords,
  isNew: boolean,
  title: string,
  lists: { lands: string[]; zones: string[] },
  unitsPage: typeof hearthUnits,
  morePages: typeof hearthMore,
): void {
  let count = Math.floor(Math.random() * 900) + 100
  const tokenKey = 'hearth-token'
  const root = document.createElement('main')
  document.body.append(root)

  type Child = Node | string
  const make = (tag: string, attributes: Record<string, string> = {}, ...children: Child[]): HTMLElement => {
    const element = document.createElement(tag)
    for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value)
    element.append(...children)
    return element
  }
  const button = (text: string, act: () => unknown): HTMLElement => {
    const element = make('div', { class: 'btn', role: 'button', tabindex: '0' }, text)
    element.addEventListener('click', () => void act())
    return element
  }
  const ask = async (path: string, body?: unknown): Promise<{ status: number; data: never }> => {
    const reply = await fetch(`/api/${path}`, {
      method: body === undefined ? 'GET' : 'POST',
      headers: { 'content-type': 'application/json', 'x-token': sessionStorage.getItem(tokenKey) ?? '' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    return { status: reply.status, data: (await reply.json()) as never }
  }

  interface Field {
    readonly row: HTMLElement
    readonly value: () => string
  }
  const labelled = (label: string, control: HTMLElement): HTMLElement => {
    count += 1
    control.id = `e${count}`
    return make('p', { class: 'row' }, make('label', { for: control.id }, label), ' ', control)
  }
  const typed = (label: string, value: string, type = 'text'): Field => {
    const control = make('input', { type }) as HTMLInputElement
    control.value = value
    return { row: labelled(label, control), value: () => control.value }
  }
  const ticked = (label: string, value: boolean): Field => {
    const control = make('input', { type: 'checkbox' }) as HTMLInputElement
    control.checked = value
    return { row: labelled(label, control), value: () => (control.checked ? 'yes' : '') }
  }
  /** A drop-down of its own making: its list is put at the end of the page while it is open. */
  const picked = (label: string, value: string, choices: readonly string[]): Field => {
    count += 1
    const shown = make('span', {}, value)
    const control = make(
      'div',
      { class: 'pick', role: 'combobox', tabindex: '0', 'aria-labelledby': `e${count}` },
      shown,
    )
    control.addEventListener('click', () => {
      const list = make('ul', { role: 'listbox', class: 'list' })
      for (const choice of choices) {
        const option = make('li', { role: 'option' }, choice)
        option.addEventListener('click', () => {
          shown.textContent = choice
          list.remove()
        })
        list.append(option)
      }
      document.body.append(list)
    })
    return {
      row: make('p', { class: 'row' }, make('span', { id: `e${count}` }, label), ' ', control),
      value: () => shown.textContent ?? '',
    }
  }
  const inOrder = (...fields: Field[]): HTMLElement[] => {
    const rows = fields.map(({ row }) => row)
    return words.turned ? rows.reverse() : rows
  }

  const toast = (text: string, kind: string): void => {
    const note = make('div', { class: kind, role: 'status' }, text)
    document.body.append(note)
    setTimeout(() => note.remove(), 1500)
  }
  const dialog = (heading: string, ...children: Child[]): { close: () => void } => {
    const box = make('div', { role: 'dialog', class: 'dialog' }, make('h2', {}, heading), ...children)
    document.body.append(box)
    return { close: () => box.remove() }
  }

  const welcome = (): void => {
    const country = picked(words.country, '', lists.lands)
    const zone = picked(words.zone, '', lists.zones)
    const tongue = picked(words.tongue, 'English', ['English', 'Deutsch', 'Te reo Māori'])
    const [user, word, again] = [
      typed(words.user, ''),
      typed(words.word, '', 'password'),
      typed(words.again, '', 'password'),
    ]
    const net = typed(words.firstNet, '')
    const wrong = make('p', { class: 'wrong' })
    const steps = [
      [make('h1', {}, 'Where is it?'), ...inOrder(country, zone, tongue)],
      [make('h1', {}, 'Who looks after it?'), ...inOrder(user, word, again)],
      [make('h1', {}, 'One last thing'), net.row],
    ]
    const step = (at: number): void => {
      root.replaceChildren(make('p', {}, title), ...(steps[at] ?? []), wrong)
      root.append(
        button(at < 2 ? words.next : words.finish, async () => {
          wrong.textContent = ''
          if (at === 0 && (country.value() === '' || zone.value() === '')) wrong.textContent = 'Choose both.'
          else if (at === 1 && word.value() !== again.value()) wrong.textContent = 'The two are not the same.'
          else if (at < 2) step(at + 1)
          else {
            const { status, data } = await ask('begin', {
              ...{ country: country.value(), zone: zone.value(), user: user.value(), word: word.value() },
              net: net.value(),
            })
            if (status === 200) location.reload()
            else wrong.textContent = (data as { reason: string }).reason
          }
        }),
      )
    }
    step(0)
  }

  const enter = (reason = ''): void => {
    const [user, word] = [typed(words.user, ''), typed(words.word, '', 'password')]
    root.replaceChildren(
      make('h1', {}, title),
      ...inOrder(user, word),
      button(words.enter, async () => {
        const { status, data } = await ask('enter', { user: user.value(), word: word.value() })
        if (status !== 200) return enter((data as { reason: string }).reason)
        sessionStorage.setItem(tokenKey, (data as { token: string }).token)
        location.hash = '#/home'
        void draw()
      }),
      ...(reason === '' ? [] : [make('p', { class: 'wrong' }, reason)]),
    )
  }

  const post = async (path: string, body: unknown, then: () => unknown = draw): Promise<void> => {
    const { status, data } = await ask(path, body)
    if (status === 401) return enter()
    if (status !== 200) return toast((data as { reason: string }).reason, 'wrong')
    toast(words.saved, 'noted')
    await then()
  }

  const radioPart = ({ band, on, channel, channels, width, widths, power, powers }: HearthRadio) => {
    const fields = {
      on: ticked(words.on, on),
      channel: picked(words.channel, channel, channels),
      width: picked(words.width, width, widths),
      power: picked(words.power, power, powers),
    }
    return {
      part: make('fieldset', {}, make('legend', {}, `${band} GHz`), ...inOrder(...Object.values(fields))),
      value: () => ({
        band,
        ...Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, field.value()])),
      }),
    }
  }
  const kit = { words, make, button, typed, picked, inOrder, dialog, radioPart, post, ask, draw: () => draw() }
  const { clients, files } = morePages(kit)

  const pages: Record<string, (view: HearthView) => Child[]> = {
    units: ({ units }) => unitsPage(units, kit),
    clients,
    home: ({ state, air }) => [
      make('dl', {}, ...state.flatMap(([label, value]) => [make('dt', {}, label), make('dd', {}, value)])),
      ...air.map(({ band, words: does, channel, width, nets }) =>
        make(
          'section',
          { class: 'air' },
          make('h2', {}, `${band} GHz`),
          make('p', {}, make('b', {}, does), ' ', make('i', {}, channel), ' / ', make('u', {}, width)),
          make(
            'ul',
            {},
            ...nets.map(({ name, guard, bssid }) =>
              make('li', {}, make('b', {}, name), ' ', make('i', {}, guard), ' ', make('code', {}, bssid)),
            ),
          ),
        ),
      ),
    ],
    radios: ({ radios }) => {
      const parts = radios.map(radioPart)
      const all = parts.map(({ part }) => part)
      return [
        ...(words.turned ? all.reverse() : all),
        button(words.keep, () => post('radios', { radios: parts.map(({ value }) => value()) })),
      ]
    },
    nets: ({ nets, guards }) => {
      const edit = (net: Net | undefined): void => {
        const fields = {
          name: typed(words.netName, net?.name ?? ''),
          on: ticked(words.netOn, net?.on ?? false),
          hidden: ticked(words.quiet, net?.hidden ?? false),
          guard: picked(words.guard, net?.guard ?? guards[0] ?? '', guards),
          key: typed(words.key, '', 'password'),
          vlan: typed(words.vlan, net?.vlan == null ? '' : String(net.vlan)),
          isolated: ticked(words.apart, net?.isolated ?? false),
          low: ticked('2.4 GHz', net?.bands.includes('2.4') ?? false),
          high: ticked('5 GHz', net?.bands.includes('5') ?? false),
        }
        const opened = dialog(
          net ? `${words.edit}: ${net.name}` : words.add,
          ...inOrder(...Object.values(fields)),
          button(words.close, () => opened.close()),
          button(words.keep, async () => {
            const value = Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, field.value()]))
            await post('network', { id: net?.id ?? null, ...value }, () => {
              opened.close()
              return draw()
            })
          }),
        )
      }
      const rows = nets.map((net) =>
        make(
          'tr',
          {},
          make('td', {}, net.name),
          make('td', {}, net.guard),
          make('td', {}, net.bands.map((band) => `${band} GHz`).join(' + ')),
          make(
            'td',
            {},
            button(words.edit, () => edit(net)),
            button(words.remove, () => {
              const asked = dialog(
                `${words.remove} ${net.name}?`,
                button(words.no, () => asked.close()),
                button(words.yes, () => {
                  asked.close()
                  return post('remove', { id: net.id })
                }),
              )
            }),
          ),
        ),
      )
      const head = [words.netName, words.guard, words.bands, ''].map((text) => make('th', {}, text))
      return [
        make(
          'table',
          {},
          make('thead', {}, make('tr', {}, ...head)),
          make('tbody', {}, ...(words.turned ? rows.reverse() : rows)),
        ),
        button(words.add, () => edit(undefined)),
      ]
    },
    cable: () => [
      make('iframe', { src: `/old/wired?token=${sessionStorage.getItem(tokenKey)}`, width: '600', height: '420' }),
    ],
    box: ({ box }) => {
      const fields = {
        name: typed(words.unitName, box.name),
        location: typed(words.spot, box.location),
        country: picked(words.country, box.country, lists.lands),
        zone: picked(words.zone, box.zone, lists.zones),
        timeServers: typed(words.timeServers, box.timeServers.join(' ')),
        lights: ticked(words.light, box.lights),
      }
      return [
        ...inOrder(...Object.values(fields)),
        button(words.keep, () =>
          post('box', Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, field.value()]))),
        ),
      ]
    },
    admin: () => {
      const [before, word, again] = [
        typed(words.before, '', 'password'),
        typed(words.nextWord, '', 'password'),
        typed(words.again, '', 'password'),
      ]
      return [
        ...inOrder(before, word, again),
        button(words.keep, () =>
          word.value() === again.value()
            ? post('word', { before: before.value(), next: word.value() })
            : toast('The two are not the same.', 'wrong'),
        ),
      ]
    },
    system: () => [
      ...files(),
      button(words.restart, () => {
        if (confirm(`${words.restart}?`)) return post('restart', {}, () => undefined)
      }),
    ],
  }
  const menu: [string, string][] = [
    ['home', words.home],
    ['box', words.box],
    ['radios', words.radios],
    ['nets', words.nets],
    ['units', words.units],
    ['clients', words.clients],
    ['cable', words.cable],
    ['admin', words.admin],
    ['system', words.system],
  ]

  let drawn = 0
  const draw = async (): Promise<void> => {
    drawn += 1
    const mine = drawn
    const { status, data } = await ask('all').catch(() => ({ status: 0, data: undefined as never }))
    if (mine !== drawn) return
    if (status === 401) return enter()
    const view = data as HearthView | undefined
    if (status !== 200 || view?.standing === 'applying') {
      root.replaceChildren(make('p', { class: 'countdown' }, words.wait))
      setTimeout(() => location.reload(), 500)
      return
    }
    const name = /^#\/(\w+)$/.exec(location.hash)?.[1] ?? 'home'
    const links = menu.map(([to, text]) => {
      const link = make('a', { href: `#/${to}` }, text)
      return make('li', to === name ? { class: 'here' } : {}, link)
    })
    const bar = make(
      'div',
      { class: 'bar' },
      make('span', {}, words.notSaved),
      button(words.save, () => {
        const asked = dialog(
          words.save,
          make('p', {}, words.sure),
          button(words.no, () => asked.close()),
          button(words.yes, () => {
            asked.close()
            return post('effect', {})
          }),
        )
      }),
      button(words.discard, () => post('discard', {})),
    )
    root.replaceChildren(
      make('ul', { class: 'menu' }, ...links),
      make('h1', {}, menu.find(([to]) => to === name)?.[1] ?? ''),
      ...(view?.standing === 'waiting' ? [bar] : []),
      ...(view && pages[name] ? pages[name](view) : []),
    )
  }

  if (isNew) welcome()
  else {
    addEventListener('hashchange', () => void draw())
    if (sessionStorage.getItem(tokenKey) === null) enter()
    else void draw()
  }
}
