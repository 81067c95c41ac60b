// Faults that are known, planted into the runner one at a time: the simulation must find each.
const runner = (file) => `src/runner/${file}`

/** What is planted: the file, what stands there once (or how it is found), and what is put in its place. */
export const planted = [
  [
    'The password door is journaled after the unit was told',
    runner('steps/password.ts'),
    "    await journal.door('password', 'opened')\n    await access.dialect.changePassword(login.user, login.password)",
    "    await access.dialect.changePassword(login.user, login.password)\n    await journal.door('password', 'opened')",
  ],
  [
    'The admin that whoever comes first makes is made before the password door is journaled',
    runner('steps/sign-in.ts'),
    "        if (journal.doors.password === 'shut') await journal.door('password', 'opened')\n",
    '',
  ],
  [
    'The address door is journaled after the write',
    runner('steps/address.ts'),
    "  await journal.door('address', 'opened')\n",
    '',
  ],
  ['The address door does not say where the unit is sent', runner('unit/journal.ts'), '{ place }', '{}'],
  [
    'A unit is looked for at its planned address alone once it was sent there',
    runner('steps/reach.ts'),
    ': [plan.address, ...former, address, seenAt]',
    ': [plan.address]',
  ],
  [
    'No former password is tried',
    runner('steps/sign-in.ts'),
    '? [factory, job, ...old]\n      : target.passwordWasReplaced\n        ? [...old, job, factory]\n        ' +
      ': [job, factory, ...old]',
    '? [factory, job]\n      : target.passwordWasReplaced\n        ? [job, factory]\n        : [job, factory]',
  ],
  [
    'The factory password is not tried once another was given',
    runner('steps/sign-in.ts'),
    '        : [job, factory, ...old]',
    '        : [job, ...old]',
  ],
  [
    'The lease is not renewed',
    runner('order/lease.ts'),
    '      await clock.rest(renewEveryMs, signal)\n      if (signal.aborted) return',
    '      await clock.rest(renewEveryMs * 3600, signal)\n      if (signal.aborted) return',
  ],
  [
    'A lease that may have run out is taken for one that holds',
    runner('order/lease.ts'),
    '    return passed > leaseSeconds * 1000',
    '    return false',
  ],
  [
    'A lease counts from when the answer came',
    runner('order/lease.ts'),
    '    this.#confirmed = options.askedAt',
    '    this.#confirmed = instantOf(options.clock)',
  ],
  [
    'A lease is measured by a clock that stands still while the laptop sleeps',
    runner('order/lease.ts'),
    'Math.max(now.monotonic - this.#confirmed.monotonic, now.wall - this.#confirmed.wall)',
    'now.monotonic - this.#confirmed.monotonic',
  ],
  [
    'Changes do not ask whether the order is still ours',
    runner('unit/unit-run.ts'),
    'pin, this.mayAct, contact)',
    'pin, async () => undefined, contact)',
  ],
  [
    'Only the first part of a write asks whether the order is still ours',
    runner('unit/guarded.ts'),
    'dialect.write(differences, desired, mayGoOn)',
    'dialect.write(differences, desired)',
  ],
  [
    'A pin is taken anew on second sight',
    'src/wire/trust/pin.ts',
    '    if (pinned.fingerprint !== fingerprint)',
    '    if (false)',
  ],
  [
    'Networks that a unit ships with go off air with the others',
    runner('steps/backup.ts'),
    'const silenced = await silence(run)',
    'const silenced = undefined as Message | undefined',
  ],
  [
    'Silenced networks are not saved before a restart',
    runner('steps/firmware.ts'),
    "    if (target.card.does.saves === 'on-command') await save(run)\n",
    '',
  ],
  [
    'The first change comes before the copy as found',
    runner('steps/backup.ts'),
    'const kept = await keep(run)\n  const silenced = await silence(run)',
    'const silenced = await silence(run)\n  const kept = await keep(run)',
  ],
  [
    'A network is written before its security',
    runner('steps/settle.ts'),
    '  await access.dialect.write(differences, target.compiled.config)\n',
    `  const { networks, ...others } = target.compiled.config
  const open = Object.entries(networks).map(([id, each]) => [id, { ...each, 'network.security': 'open' as const }])
  if (step === 'networks') await access.dialect.write(differences, { ...others, networks: Object.fromEntries(open) })
  await access.dialect.write(differences, target.compiled.config)
`,
  ],
  [
    'Radios are written before the country',
    'src/core/muster/procedure.ts',
    "  'firmware',\n  // Country before anything about radios: it resets channels on much equipment.\n  " +
      "'country',\n  // A wrong clock breaks joins, certificates and schedules.\n  'clock',\n  // Security " +
      'goes in the same change as the network: at no time is one there that anyone could join.\n  ' +
      "'networks',\n  'radios',",
    "  'firmware',\n  'radios',\n  // Country before anything about radios: it resets channels on much " +
      "equipment.\n  'country',\n  // A wrong clock breaks joins, certificates and schedules.\n  'clock',\n  " +
      '// Security goes in the same change as the network: at no time is one there that anyone could join.\n  ' +
      "'networks',",
  ],
  [
    'Nothing is read again after a write',
    runner('steps/settle.ts'),
    '  run.willChange()\n  await access.dialect.write(differences, target.compiled.config)\n',
    '  await access.dialect.write(differences, target.compiled.config)\n',
  ],
  [
    'Marks are kept before what they mark is saved',
    runner('steps/settle.ts'),
    "find(observed, key).kind === 'unreadable') journal.wrote(keyText(key), target.markOf(key))\n",
    "find(observed, key).kind === 'unreadable') journal.wrote(keyText(key), target.markOf(key))\n  await " +
      'journal.tookEffect()\n',
  ],
  [
    'Marks of before count for a unit that is found as out of its box',
    runner('steps/sign-in.ts'),
    "    if (key.kind === 'factory') await journal.foundBoxed()\n",
    '',
  ],
  [
    'What was written and lost with the power is taken for written',
    runner('drive.ts'),
    '      run.journal.forgetWritten()\n',
    '',
  ],
  [
    // Two checks see it, each by itself: by the address and by the revision.
    'A unit that came back as it was before, or took its move back, is taken for moved',
    runner('steps/come-back.ts'),
    / {2}if \(address\?\.kind === 'value' && address\.value !==[\s\S]*?(?= {2}await journal\.door\('address', 'pass)/,
    '',
  ],
  [
    'A move is not confirmed',
    runner('steps/come-back.ts'),
    '  access.contact.begins()\n  await access.dialect.confirmedMove?.confirm(target.compiled.config)\n',
    '  access.contact.begins()\n',
  ],
  [
    'Save is left out',
    runner('steps/save.ts'),
    '  if (!isSaved && !(await saving.save()))',
    '  if (!isSaved && saving === undefined)',
  ],
  ['Nobody asks whether an address is free', runner('steps/address.ts'), '  await freeAddress(run)\n', ''],
  [
    'A unit that waits for an address waits for its own access points too',
    runner('steps/free-address.ts'),
    '    if (mover.after === run.target.unit.mac) return true\n',
    '',
  ],
  [
    'A session that did not come about stays open',
    runner('steps/logins.ts'),
    'factory(session).finally(() => session.close())',
    'factory(session)',
  ],
  [
    'A session with a controller that did not come about stays open',
    runner('unit/controller-link.ts'),
    '      session.close()\n      throw error',
    '      throw error',
  ],
  [
    'The address that a unit shows under DHCP counts as its own',
    'src/core/config/compare.ts',
    '    if (isSo && whole === undefined) continue',
    '    if (isSo) continue',
  ],
  [
    'A unit that DHCP moved is looked for in the subnet of the plan alone',
    runner('unit/target.ts'),
    'this.subnets = [...new Set([...input.subnets, ...this.formerPlaces.map(subnetOf)])]',
    'this.subnets = input.subnets',
  ],
  [
    'What asks DHCP is believed before it has asked',
    runner('steps/come-back.ts'),
    "const asksLater = method === 'dhcp' && old === goal",
    'const asksLater = false',
  ],
  [
    'An access point that DHCP sends elsewhere is called joined',
    runner('managed/joined.ts'),
    '  if (goal === undefined && access.address !== target.plan.address)\n    throw',
    '  if (false)\n    throw',
  ],
  [
    'A move that an earlier muster left is not confirmed',
    runner('steps/sign-in.ts'),
    "    if (journal.doors.address === 'opened' && (await isWhereItWent(run, address)))\n      await " +
      'access.dialect.confirmedMove?.confirm(target.compiled.config)\n',
    '',
  ],
  [
    'A move that an earlier muster left is confirmed at the planned address alone',
    runner('steps/sign-in.ts'),
    '(await isWhereItWent(run, address))',
    'address === target.plan.address',
  ],
  [
    'Who waits for a turn with the controller does not ask again when it has come',
    runner('unit/controller-link.ts'),
    '      await this.#input.mayAct()\n',
    '',
  ],
  [
    'Who has just come to its address is taken for one that trades',
    runner('steps/free-address.ts'),
    '    if (next.address === mover.address) return false\n',
    '',
  ],
  [
    'A unit that DHCP sends elsewhere may take its move back',
    runner('steps/come-back.ts'),
    '    await access.dialect.confirmedMove?.confirm(target.compiled.config)\n    // The plan',
    '    // The plan',
  ],
  [
    'Whoever answers at the address of a unit that hands set is taken for it',
    runner('by-hand.ts'),
    'macs.filter((mac) => mac !== unit.mac)',
    'macs.filter((mac) => mac === mac.toUpperCase())',
  ],
  [
    'What hands have set is not called by itself',
    runner('resumption.ts'),
    'address === planned.get(id)',
    'address === id',
  ],
  [
    'An event is written twice where the answer was lost',
    runner('order/event-log.ts'),
    "tries === 1 ? 'new' : 'perhaps-there'",
    "'new'",
  ],
  [
    'A secret is told in the log',
    runner('steps/password.ts'),
    '    await access.dialect.changePassword(login.user, login.password)',
    // biome-ignore lint/suspicious/noTemplateCurlyInString: it is put into a program
    '    journal.say(`new password ${login.password}`)\n    await access.dialect.changePassword(login.user, ' +
      'login.password)',
  ],
].map(([what, file, find, put]) => ({ what, file, find, put }))
