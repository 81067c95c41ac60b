import { Message } from '../ui/frame/message'

export default function NotFound() {
  return (
    <Message
      title="There is no such job."
      words="Neither a job nor a page has this address."
      link={{ href: '/', words: 'See all jobs' }}
    />
  )
}
