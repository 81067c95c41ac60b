import { Message } from '../../../ui/frame/message'

export default function NotFound() {
  return <Message title="There is no such job." words="It may have been renamed." link={{ href: '/', words: 'See all jobs' }} />
}
