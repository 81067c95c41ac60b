import { describe, expect, it } from 'vitest'
import { submissionOf } from './form-data'

const page = (inner: string, form = 'method="post" action="/save"') =>
  `<form id="f" ${form}><input type="hidden" name="token" value="t-1">${inner}<button name="go" ` +
  'value="save">Save</button></form>'
const sent = async (html: string, entries: Parameters<typeof submissionOf>[1] = [], press = 'button') => [
  ...new URLSearchParams((await submissionOf(html, entries, press)).body?.text),
]

describe('what a form sends', () => {
  it('is its fields as they stand, hidden ones too, and the button that is pressed alone', async () => {
    const html = page(`<input name="a" value="1"><input name="off" disabled value="x"><input value="nameless">
      <input type="checkbox" name="t1" checked><input type="checkbox" name="t2">
      <input type="radio" name="r" value="x"><input type="radio" name="r" value="y" checked>
      <select name="s"><option value="p">P<option selected>Q q</select><textarea name="n">two
lines</textarea><fieldset disabled><input name="in" value="x"></fieldset><input type="submit" name="other" value="no">`)
    expect(await sent(html)).toEqual([
      ['token', 't-1'],
      ['a', '1'],
      ['t1', 'on'],
      ['r', 'y'],
      ['s', 'Q q'],
      ['n', 'two\nlines'],
      ['go', 'save'],
    ])
  })

  it('holds what is put into its fields', async () => {
    const html = page(
      '<input name="a" value="1"><input type="checkbox" name="t" value="yes" checked><input type="radio" ' +
        'name="r" value="x" checked><input type="radio" name="r" value="y"><select name="s"><option value="p" ' +
        'selected>P<option value="q">Q</select><textarea name="n"></textarea>',
    )
    const text = (at: string, value: string) => ({ at, kind: 'text' as const, text: value })
    expect(
      (
        await sent(html, [
          text('[name=a]', 'a&b="c"'),
          { at: '[name=t]', kind: 'tick', ticked: false },
          text('[name=r]', 'y'),
          text('[name=s]', 'q'),
          text('[name=n]', '</textarea>'),
        ])
      ).slice(1, -1),
    ).toEqual([
      ['a', 'a&b="c"'],
      ['r', 'y'],
      ['s', 'q'],
      ['n', '</textarea>'],
    ])
  })

  it('goes where the button says before where the form says, and into the address without a post', async () => {
    const html =
      '<form id="f" action="/form"><input name="a" value="1 2"></form><button form="f" formaction="/there" ' +
      'name="b" value="1">go</button>'
    expect(await submissionOf(html, [], 'button')).toEqual({
      ...{ method: 'GET', action: '/there', body: undefined },
      query: 'a=1+2&b=1',
    })
    expect(await submissionOf(page(''), [], 'button')).toMatchObject({
      method: 'POST',
      action: '/save',
      query: undefined,
    })
  })

  it('is cut into parts where the form wants them (RFC 7578)', async () => {
    const { body } = await submissionOf(page('', 'method="post" enctype="multipart/form-data"'), [], 'button')
    const boundary = /boundary=(\S+)/.exec(body?.type ?? '')?.[1]
    expect(body?.text).toBe(
      `--${boundary}\r\ncontent-disposition: form-data; ` +
        `name="token"\r\n\r\nt-1\r\n--${boundary}\r\ncontent-disposition: form-data; ` +
        `name="go"\r\n\r\nsave\r\n--${boundary}--\r\n`,
    )
  })

  it.each([
    ['a field', page(''), '[name=gone]', 'button'],
    ['a button', page('<input name="a">'), '[name=a]', '#gone'],
    ['a form', '<input name="a"><button>x</button>', '[name=a]', 'button'],
  ])('says that %s is not there', async (_what, html, at, press) => {
    await expect(submissionOf(html, [{ at, kind: 'text', text: 'x' }], press)).rejects.toThrow(/garbled/)
  })
})
